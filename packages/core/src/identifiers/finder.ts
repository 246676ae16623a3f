import type { Fields } from '../reading/types.ts';
import { hash53 } from './hash.ts';
import { normalValue } from './normal.ts';
import { literalPrefix } from '../patterns/literal-prefix.ts';
import { Searcher } from '../patterns/searcher.ts';
import { isWord, RunSearch } from './run-search.ts';
import { LONGEST_VALUE, type IdentifierKind, type Mention } from './types.ts';

interface Compiled {
  kind: number;
  searcher: Searcher;
  literal: string;
  run: RunSearch | null;
}
/** Most identifiers of one record; a record that names more is a list, and the rest are left to text search. */
export const MOST_MENTIONS = 40;

/** Finds the identifiers of records. One finder a thread: it keeps what it learned about field names. */
export class Finder {
  private readonly compiled: Compiled[] = [];
  private readonly byField = new Map<string, number[]>();
  private readonly fieldKinds = new Map<string, readonly number[]>();
  private readonly patternsOf: Compiled[][] = [];
  private readonly seeds = new Map<string, number>();
  private readonly found: Mention[] = [];

  constructor(readonly kinds: readonly IdentifierKind[]) {
    kinds.forEach((kind, index) => {
      const compiled = (source: string): Compiled => ({
        kind: index,
        searcher: new Searcher(source),
        literal: literalPrefix(source),
        run: RunSearch.of(source),
      });
      const own = kind.patterns.map(compiled);
      this.patternsOf.push(own);
      this.compiled.push(...own, ...(kind.inText ?? []).map(compiled));
      for (const field of kind.fields) {
        const name = field.toLowerCase();
        const list = this.byField.get(name);
        if (list) list.push(index);
        else this.byField.set(name, [index]);
      }
    });
  }

  /**
   * The identifiers of one record, each once, in the order in which they are found (text first, then fields).
   * The array is used again by the next call.
   */
  find(text: string, fields: Fields, host: string): readonly Mention[] {
    this.found.length = 0;
    for (const one of this.compiled) {
      if (one.literal !== '' && !text.includes(one.literal)) continue;
      if (one.run) this.searchRuns(one, one.run, text, fields, host);
      else this.search(one, text, fields, host);
    }
    for (const name in fields) {
      const kinds = this.kindsOfField(name);
      for (const kind of kinds) this.fromField(kind, String(fields[name]), fields, host);
    }
    return this.found;
  }

  private search(one: Compiled, text: string, fields: Fields, host: string): void {
    const { searcher } = one;
    for (let hit = searcher.next(text, 0); hit;) {
      const { from, to, group } = hit;
      let next = to > from ? to : to + 1;
      if (isWord(text.charCodeAt(from - 1)) && isWord(text.charCodeAt(from))) next = from + 1;
      else if (isWord(text.charCodeAt(to)) && isWord(text.charCodeAt(to - 1))) next = from + 1;
      else this.add(one.kind, group ?? text.slice(from, to), fields, host);
      if (this.found.length >= MOST_MENTIONS || next > text.length) return;
      hit = searcher.next(text, next);
    }
  }

  private searchRuns(one: Compiled, run: RunSearch, text: string, fields: Fields, host: string): void {
    for (let at = run.next(text, 0); at >= 0;) {
      const hit = one.searcher.at(text, at);
      const end = hit?.to ?? at + 1;
      if (hit && !(isWord(text.charCodeAt(end)) && isWord(text.charCodeAt(end - 1))))
        this.add(one.kind, hit.group ?? text.slice(at, end), fields, host);
      if (this.found.length >= MOST_MENTIONS) return;
      at = run.next(text, end);
    }
  }

  private kindsOfField(name: string): readonly number[] {
    let kinds = this.fieldKinds.get(name);
    if (!kinds) {
      const lower = name.toLowerCase();
      kinds = this.byField.get(lower) ?? this.byField.get(lower.slice(lower.lastIndexOf('.') + 1)) ?? [];
      if (this.fieldKinds.size < 5000) this.fieldKinds.set(name, kinds);
    }
    return kinds;
  }

  private fromField(kind: number, value: string, fields: Fields, host: string): void {
    const patterns = this.patternsOf[kind]!;
    if (patterns.length === 0) this.add(kind, value, fields, host);
    for (const { searcher } of patterns) {
      const hit = searcher.all(value);
      if (!hit) continue;
      this.add(kind, hit.group ?? value, fields, host);
      return;
    }
  }

  private add(kind: number, text: string, fields: Fields, host: string): void {
    if (text === '' || text.length > LONGEST_VALUE || this.found.length >= MOST_MENTIONS) return;
    const definition = this.kinds[kind]!;
    const value = normalValue(text, definition.normal);
    if (value === '') return;
    for (const other of this.found) if (other.kind === kind && other.value === value) return;
    const scope = scopeOf(definition, fields, host);
    this.found.push({ kind, scope, value, key: hash53(value, this.seed(definition.name, scope)) });
  }

  private seed(name: string, scope: string): number {
    const text = `${name}\u0000${scope}`;
    let seed = this.seeds.get(text);
    if (seed === undefined) {
      seed = hash53(text) | 0;
      if (this.seeds.size < 10_000) this.seeds.set(text, seed);
    }
    return seed;
  }
}

/** Within what a value is one and the same: everywhere, on its host, or in its process there. */
function scopeOf(kind: IdentifierKind, fields: Fields, host: string): string {
  if (kind.scope === 'global') return '';
  if (kind.scope === 'host') return host;
  return `${host}/${String(fields.pid ?? fields.process ?? '')}`;
}
