import { TreeWriter, type FlatTree } from './flat.ts';
import { DEEPEST, MOST_NODES } from './types.ts';

/** Letters of names: 1 where one may begin, 2 where it may go on. */
const LETTERS = Uint8Array.from({ length: 128 }, (_, code) =>
  /[A-Za-z_:]/.test(String.fromCharCode(code)) ? 1 : /[\d.-]/.test(String.fromCharCode(code)) ? 2 : 0,
);
/** What XML does not allow at all, and line ends that it reads otherwise than they stand there. */
const STRANGE = /[\0-\x08\x0b-\x1f\ud800-\udfff\ufffe\uffff]/u;
const ENTITY = /&(?:#(\d{1,7})|#x([\da-fA-F]{1,6})|(amp|lt|gt|quot|apos));/g;
const NAMED: Record<string, string> = { amp: '&', lt: '<', gt: '>', quot: '"', apos: "'" };
const [LESS, SLASH, GREATER, EXCLAMATION, QUESTION, EQUALS, QUOTE, APOSTROPHE] = [60, 47, 62, 33, 63, 61, 34, 39];

/** Thrown inside, where a text is not surely valid XML. */
class Unsure extends Error {}

/**
 * Plain well-formed XML as a tree, fast: up to the end of the outermost element. A hot path: for two megabytes twice as fast as a parser that goes on behind
 * errors.
 *
 * @returns `blanks` where some are left out behind what an element says; null where it is not surely well formed, or has what is better read by that parser: a DTD, names that are not ASCII, carriage returns, more parts than are shown
 */
export function validXml(text: string): { tree: FlatTree; nodes: number; end: number; blanks: boolean } | null {
  const out = new TreeWriter(text);
  let at = 0;
  let blanks = false;
  const blank = (): number => {
    const from = at;
    for (let code = text.charCodeAt(at); code === 32 || code === 10 || code === 9; code = text.charCodeAt(at)) at++;
    return at - from;
  };
  /** Over a name. Returns where it ends. */
  const name = (): number => {
    if (LETTERS[text.charCodeAt(at)] !== 1) throw new Unsure();
    do at++;
    while (LETTERS[text.charCodeAt(at)]! > 0);
    return at;
  };
  const behind = (mark: string, from: number): number => {
    const end = text.indexOf(mark, from);
    if (end < 0) throw new Unsure();
    return end;
  };
  /** Over a comment or an instruction. */
  const skip = (): void => {
    if (text.charCodeAt(at + 1) === QUESTION) {
      const end = behind('?>', at + 2);
      if (!/^\?[A-Za-z_][\w.-]*(?:[ \t\n]|$)/.test(text.slice(at + 1, Math.min(end, at + 200))) || /^\?xml/i.test(text.slice(at + 1, at + 5)))
        throw new Unsure();
      at = end + 2;
    } else {
      if (!text.startsWith('<!--', at)) throw new Unsure();
      const end = behind('--', at + 4);
      if (text.charCodeAt(end + 2) !== GREATER) throw new Unsure();
      at = end + 3;
    }
  };
  /** Names of the attributes of a tag. */
  const names: string[] = [];
  const open: Open[] = [];
  /** Over a tag that begins an element. An element that does not end with it is open. */
  const tag = (): void => {
    const from = ++at;
    const to = name();
    const node = out.begin('element', from, to);
    names.length = 0;
    for (;;) {
      if (out.count > MOST_NODES) throw new Unsure();
      const parted = blank() > 0;
      const code = text.charCodeAt(at++);
      if (code === GREATER) {
        open.push({ node, from, to, value: null });
        if (open.length > DEEPEST) throw new Unsure();
        return;
      }
      if (code === SLASH) {
        if (text.charCodeAt(at++) !== GREATER) throw new Unsure();
        out.end(node);
        return;
      }
      at--;
      if (!parted) throw new Unsure();
      const begin = at;
      const behindName = name();
      const own = text.slice(begin, behindName);
      if (names.includes(own)) throw new Unsure();
      names.push(own);
      blank();
      if (text.charCodeAt(at++) !== EQUALS) throw new Unsure();
      blank();
      const quote = text.charCodeAt(at++);
      if (quote !== QUOTE && quote !== APOSTROPHE) throw new Unsure();
      const end = behind(quote === QUOTE ? '"' : "'", at);
      const raw = text.slice(at, end);
      if (/[<\t\n]/.test(raw)) throw new Unsure();
      const attribute = out.begin('attribute', begin, behindName, at, end);
      if (raw.includes('&')) put(attribute, plain(raw));
      at = end + 1;
    }
  };
  const put = (node: number, value: string): void => {
    const from = out.add(value);
    out.value(node, from, from + value.length);
  };
  /** A piece of text or a section of characters of the innermost element. */
  const piece = (from: number, to: number, escaped: boolean): void => {
    const raw = text.slice(from, to);
    if (escaped && raw.includes(']]>')) throw new Unsure();
    const now = open[open.length - 1]!;
    if (!SAYS.test(raw)) {
      blanks ||= now.value !== null;
      return;
    }
    const own = escaped ? plain(raw) : raw;
    if (now.value === null && own === raw) out.value(now.node, from, to);
    else put(now.node, (now.value ?? '') + own);
    now.value = (now.value ?? '') + own;
  };
  try {
    if (STRANGE.test(text.charCodeAt(0) === LESS ? text : '\0')) return null;
    if (/^<\?xml[^>]*\?>/.test(text)) at = text.indexOf('>') + 1;
    for (;;) {
      blank();
      const code = text.charCodeAt(at + 1);
      if (text.charCodeAt(at) !== LESS) return null;
      if (code !== EXCLAMATION && code !== QUESTION) break;
      skip();
    }
    for (;;) {
      // at a tag, within an element or before the outermost one
      const code = text.charCodeAt(at + 1);
      if (code === SLASH) {
        at += 2;
        const from = at;
        const to = name();
        const now = open.pop();
        if (!now || text.slice(from, to) !== text.slice(now.from, now.to)) throw new Unsure();
        blank();
        if (text.charCodeAt(at++) !== GREATER) throw new Unsure();
        out.end(now.node);
      } else if (code === EXCLAMATION && text.startsWith('<![CDATA[', at)) {
        const end = behind(']]>', at + 9);
        piece(at + 9, end, false);
        at = end + 3;
      } else if (code === EXCLAMATION || code === QUESTION) skip();
      else tag();
      if (open.length === 0) return { tree: out.tree(), nodes: out.count, end: at, blanks };
      const next = behind('<', at);
      if (next > at) piece(at, next, true);
      at = next;
    }
  } catch (error) {
    if (error instanceof Unsure) return null;
    throw error;
  }
}

/** An element that has not ended. */
interface Open {
  node: number;
  /** Where its name stands. */
  from: number;
  to: number;
  /** What it says so far, null for nothing. */
  value: string | null;
}
/** Says something. */
const SAYS = /\S/;

function plain(raw: string): string {
  if (!raw.includes('&')) return raw;
  if (raw.replace(ENTITY, '').includes('&')) throw new Unsure();
  return raw.replace(ENTITY, (_, decimal: string | undefined, hex: string | undefined, named: string | undefined) => {
    if (named !== undefined) return NAMED[named]!;
    const code = decimal === undefined ? parseInt(hex!, 16) : Number(decimal);
    if (code > 0x10ffff || STRANGE.test(String.fromCodePoint(code))) throw new Unsure();
    return String.fromCodePoint(code);
  });
}
