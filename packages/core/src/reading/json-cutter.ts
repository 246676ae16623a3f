import type { Cut } from './types.ts';

/** Where in a JSON document the scanner stands: a list or an object for each level, with the member that is being read. */
export interface JsonPlace {
  list: boolean;
  /** Member of the object that comes next or is being read. */
  key: string;
}
export interface JsonCutterState {
  open: JsonPlace[];
  kept: Record<string, string>;
}

/** A string holds no line break (RFC 8259, section 7): a quote that is not closed on its line is no string. */
const TOKEN = /"(?:[^"\\\n]|\\[^\n])*"|["{}[\],:]/g;
/** So much framing, in characters, is given away before its document is complete. */
const MUCH = 65_536;
const SPACE = /[^\s\ufeff\xef\xbb\xbf\x1e]/g;

/**
 * Finds the objects that are records in JSON documents (RFC 8259) of any size, one after the other, also cut in the middle: objects that stand in lists
 * under certain names, or in the outermost list, or alone. Other objects that explain the records that follow are remembered.
 */
export class JsonCutter {
  private open: JsonPlace[];
  /** Texts of the remembered objects that stand around the record, by name. */
  kept: Record<string, string>;

  /**
   * @param isRecord whether an object is a record, by the names of the members around it, outermost first
   * @param isKept names of objects that explain what follows beside them
   */
  constructor(
    private readonly isRecord: (path: readonly JsonPlace[]) => boolean,
    private readonly isKept: ReadonlySet<string>,
    state: JsonCutterState | null,
  ) {
    this.open = state?.open ?? [];
    this.kept = state?.kept ?? {};
  }
  state(): JsonCutterState {
    return { open: this.open, kept: this.kept };
  }

  next(view: string, from: number, last: boolean): Cut | null {
    const open = this.open.map((place) => ({ ...place }));
    const cut = (to: number, record: boolean): Cut => {
      this.open = open;
      return { to, record };
    };
    const incomplete = (at: number): Cut | null => {
      if (last) return { to: view.length, record: true };
      return at - from > MUCH ? cut(at, false) : null;
    };
    if (open.length === 0) {
      const junk = this.junk(view, from, last);
      if (junk !== undefined) return junk;
    }
    TOKEN.lastIndex = from;
    let safe = from;
    for (let hit = TOKEN.exec(view); hit; hit = TOKEN.exec(view)) {
      const token = hit[0];
      if (token === '"') {
        if (!last && view.indexOf('\n', hit.index) < 0) return incomplete(safe);
        continue;
      }
      // a document begins anew where the one before was broken off
      if (token === '{' && open.length > 1 && view[hit.index - 1] === '\n' && !this.isRecord(open)) open.length = 0;
      const top = open[open.length - 1];
      if (token === '{') {
        if (this.isRecord(open)) {
          if (hit.index > from) return cut(hit.index, false);
          const end = closing(view, hit.index);
          if (end < 0) return last ? { to: view.length, record: true } : null;
          return cut(end, true);
        }
        if (top && !top.list && this.isKept.has(top.key)) {
          const end = closing(view, hit.index);
          if (end < 0) return incomplete(safe);
          this.kept[top.key] = view.slice(hit.index, end);
          TOKEN.lastIndex = end;
        } else open.push({ list: false, key: '' });
      } else if (token === '[') open.push({ list: true, key: '' });
      else if (token === '}' || token === ']') {
        open.pop();
        if (open.length === 0) return cut(TOKEN.lastIndex, false);
      } else if (token === ',') {
        if (top && !top.list) top.key = '';
      } else if (token !== ':' && top && !top.list && top.key === '') top.key = token.slice(1, -1);
      safe = TOKEN.lastIndex;
      TOKEN.lastIndex = safe;
    }
    if (last) return cut(view.length, !/^[\s\ufeff\xef\xbb\xbf,\]}]*$/.test(view.slice(from)));
    // a string may have begun behind the last token
    return safe - from > MUCH ? cut(safe, false) : null;
  }

  /** Outside of all documents: white space, or a line that is none. `undefined` where a document begins. */
  private junk(view: string, from: number, last: boolean): Cut | null | undefined {
    SPACE.lastIndex = from;
    const first = SPACE.exec(view);
    if (!first) return last ? { to: view.length, record: false } : null;
    if (first[0] === '{' || first[0] === '[') return undefined;
    if (first[0] === ',') return { to: first.index + 1, record: false };
    const lineEnd = view.indexOf('\n', first.index);
    if (lineEnd < 0 && !last) return null;
    return { to: lineEnd < 0 ? view.length : lineEnd + 1, record: true };
  }
}

/** Behind the bracket that closes the object which begins at `from`, -1 where it does not end. */
function closing(view: string, from: number): number {
  const BRACKET = /"(?:[^"\\\n]|\\[^\n])*"|["{}[\]]/g;
  BRACKET.lastIndex = from;
  let depth = 0;
  for (let hit = BRACKET.exec(view); hit; hit = BRACKET.exec(view)) {
    const token = hit[0];
    if (token === '"' && view.indexOf('\n', hit.index) < 0) return -1;
    if (token === '{' || token === '[') depth++;
    else if ((token === '}' || token === ']') && --depth === 0) return BRACKET.lastIndex;
  }
  return -1;
}
