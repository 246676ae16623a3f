import { DEEPEST, MOST_NODES, NO_CHILDREN, type TreeNode } from './types.ts';

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
 * @returns null where it is not surely well formed, or has what is better read by that parser: a DTD, names that are not ASCII, carriage returns, more parts than are shown
 */
export function validXml(text: string): { root: TreeNode; nodes: number; end: number } | null {
  let at = 0;
  let nodes = 0;
  const blank = (): number => {
    const from = at;
    for (let code = text.charCodeAt(at); code === 32 || code === 10 || code === 9; code = text.charCodeAt(at)) at++;
    return at - from;
  };
  const name = (): string => {
    const from = at;
    if (LETTERS[text.charCodeAt(at)] !== 1) throw new Unsure();
    do at++;
    while (LETTERS[text.charCodeAt(at)]! > 0);
    return text.slice(from, at);
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
  const tag = (parent: TreeNode): TreeNode | null => {
    at++;
    const node: TreeNode = { name: name(), kind: 'element', value: '', children: [] };
    if (++nodes > MOST_NODES) throw new Unsure();
    parent.children.push(node);
    for (;;) {
      const parted = blank() > 0;
      const code = text.charCodeAt(at);
      if (code === GREATER) {
        at++;
        return node;
      }
      if (code === SLASH) {
        if (text.charCodeAt(at + 1) !== GREATER) throw new Unsure();
        at += 2;
        return null;
      }
      if (!parted) throw new Unsure();
      const own = `@${name()}`;
      blank();
      if (text.charCodeAt(at++) !== EQUALS) throw new Unsure();
      blank();
      const quote = text.charCodeAt(at);
      if (quote !== QUOTE && quote !== APOSTROPHE) throw new Unsure();
      const end = behind(quote === QUOTE ? '"' : "'", at + 1);
      const raw = text.slice(at + 1, end);
      if (/[<\t\n]/.test(raw) || node.children.some((one) => one.name === own)) throw new Unsure();
      if (++nodes > MOST_NODES) throw new Unsure();
      node.children.push({ name: own, kind: 'attribute', value: plain(raw), children: NO_CHILDREN });
      at = end + 1;
    }
  };
  try {
    if (STRANGE.test(text.charCodeAt(0) === LESS ? text : '\0')) return null;
    if (/^<\?xml[^>]*\?>/.test(text)) at = text.indexOf('>') + 1;
    const top: TreeNode = { name: '', kind: 'element', value: '', children: [] };
    for (;;) {
      blank();
      const code = text.charCodeAt(at + 1);
      if (text.charCodeAt(at) !== LESS) return null;
      if (code !== EXCLAMATION && code !== QUESTION) break;
      skip();
    }
    const open: TreeNode[] = [];
    for (let now: TreeNode = top; ;) {
      // at a tag, within an element or before the outermost one
      const code = text.charCodeAt(at + 1);
      if (code === SLASH) {
        at += 2;
        if (name() !== now.name) throw new Unsure();
        blank();
        if (text.charCodeAt(at++) !== GREATER) throw new Unsure();
        now = open.pop()!;
      } else if (code === EXCLAMATION && text.startsWith('<![CDATA[', at)) {
        const end = behind(']]>', at + 9);
        const part = text.slice(at + 9, end);
        if (part.trim() !== '') now.value += part;
        at = end + 3;
      } else if (code === EXCLAMATION || code === QUESTION) skip();
      else {
        const inner = tag(now);
        if (inner) {
          open.push(now);
          if (open.length > DEEPEST) throw new Unsure();
          now = inner;
        }
      }
      if (now === top) return { root: top.children[0]!, nodes, end: at };
      const next = behind('<', at);
      if (next > at) {
        const raw = text.slice(at, next);
        if (raw.includes(']]>')) throw new Unsure();
        if (raw.trim() !== '') now.value += plain(raw);
        at = next;
      }
    }
  } catch (error) {
    if (error instanceof Unsure) return null;
    throw error;
  }
}

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
