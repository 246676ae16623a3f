import type { Fields } from '../reading/types.ts';
import { hash53 } from './hash.ts';
import { normalValue } from './normal.ts';
import { literalPrefix } from './patterns.ts';
import { isWord, RunSearch } from './run-search.ts';
import { LONGEST_VALUE, type IdentifierKind, type Mention } from './types.ts';

interface Compiled {
  kind: number;
  pattern: RegExp;
  whole: RegExp;
  literal: string;
  run: RunSearch | null;
  sticky: RegExp;
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
      const own = kind.patterns.map((source) => ({
        kind: index,
        pattern: new RegExp(source, 'g'),
        whole: new RegExp(`^(?:${source})$`),
        literal: literalPrefix(source),
        run: RunSearch.of(source),
        sticky: new RegExp(source, 'y'),
      }));
      this.patternsOf.push(own);
      this.compiled.push(...own);
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
    const { pattern } = one;
    pattern.lastIndex = 0;
    for (let hit = pattern.exec(text); hit; hit = pattern.exec(text)) {
      const end = hit.index + hit[0].length;
      if (isWord(text.charCodeAt(hit.index - 1)) && isWord(hit[0].charCodeAt(0))) pattern.lastIndex = hit.index + 1;
      else if (isWord(text.charCodeAt(end)) && isWord(hit[0].charCodeAt(hit[0].length - 1))) pattern.lastIndex = hit.index + 1;
      else this.add(one.kind, hit[1] ?? hit[0], fields, host);
      if (this.found.length >= MOST_MENTIONS) return;
    }
  }

  private searchRuns(one: Compiled, run: RunSearch, text: string, fields: Fields, host: string): void {
    for (let at = run.next(text, 0); at >= 0;) {
      one.sticky.lastIndex = at;
      const hit = one.sticky.exec(text);
      const end = hit ? at + hit[0].length : at + 1;
      if (hit && !(isWord(text.charCodeAt(end)) && isWord(hit[0].charCodeAt(hit[0].length - 1)))) this.add(one.kind, hit[1] ?? hit[0], fields, host);
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
    for (const { whole } of patterns) {
      const hit = whole.exec(value);
      if (!hit) continue;
      this.add(kind, hit[1] ?? hit[0], fields, host);
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
