import type { StrandRecord } from '../path/types.ts';
import { originOf, ownByName, partsOfMessage, rootOf, tracesIn, type Thrown, type Trace, type TreeNode } from '../structure/index.ts';
import { words } from './sentence.ts';
import type { SentencePart } from './types.ts';

/** Why something failed, as a message states it behind its first words. */
export interface Reason {
  /** In the message's own words; '' where its first line says it already. */
  text: string;
  /** The innermost call of the program itself, with its place in the source; null where no calls are told. */
  call: string | null;
}

/** A reason is cut behind so many characters. */
const LONGEST = 240;
/** Deeper causes are not looked for. */
const DEEPEST = 12;
/** What holds a cause, and what says it in words: names of RFC 9457 (problem details), RFC 6749 (errors of OAuth), JSON:API, SOAP 1.1 and 1.2. */
const HOLDERS = new Set(['error', 'errors', 'cause', 'causedby', 'fault', 'exception', 'innererror', 'inner', 'details', 'detail', 'reason', 'code', 'subcode']); // prettier-ignore
const SAYINGS = ['detail', 'error_description', 'message', 'faultstring', 'text', 'reason', 'description', 'title', 'error', 'cause'];
/** A line in which a database server goes into detail. */
const DETAIL = /\n[ \t]*DETAIL:[ \t]+(\S[^\n]*)/;

/**
 * The reason that a message gives behind its first line: the innermost cause of a stack trace with the call in which it came up, a SOAP fault, a nested
 * error of a JSON body, a database's detail.
 *
 * @param component who says it: calls of its own packages come first
 * @returns null where it gives none
 */
export function reasonOf(message: string, component: string): Reason | null {
  const head = message.split('\n', 1)[0]!;
  const trace = message.includes('\n') ? tracesIn(message)[0]?.trace : undefined;
  if (trace) {
    const own = ownByName([trace], component, null);
    return ofTrace(trace.thrown, head, own.length === 0 ? trace.origin : originOf(trace.thrown, own));
  }
  const detail = DETAIL.exec(message)?.[1];
  if (detail) return { text: shortened(detail), call: null };
  const text = saidWithin(message);
  return text === null || head === text ? null : { text: shortened(text), call: null };
}

/** The same for a sentence, behind the record's first line. */
export function because({ message, component }: StrandRecord, record: number): SentencePart[] {
  const reason = reasonOf(message, component);
  if (!reason) return [];
  const call = reason.call === null ? [] : [words(`${reason.text === '' ? ',' : ''} in ${reason.call}`)];
  return reason.text === '' ? call : [words(', because '), { kind: 'quote', text: reason.text, record }, ...call];
}

function ofTrace(thrown: readonly Thrown[], head: string, origin: Trace['origin']): Reason | null {
  const chain = thrown.filter(({ relation }) => relation !== 'suppressed');
  const innermost = chain.at(-1);
  if (!innermost) return null;
  const text = wordsOf(innermost);
  const frame = origin && thrown[origin.thrown]?.frames[origin.frame];
  const place = frame?.file ? `${frame.file.split(/[/\\]/).at(-1)}${frame.line === null ? '' : `:${frame.line}`}` : '';
  const called = frame && !frame.code.includes('<anonymous>') ? frame.code : '';
  const call = called !== '' && place !== '' ? `${called} (${place})` : called || place || null;
  return {
    text: text === '' || head.includes(text) || (innermost.message !== '' && head.endsWith(firstLine(innermost.message))) ? '' : shortened(text),
    call,
  };
}
const firstLine = (text: string): string => text.split('\n', 1)[0]!.trim();
/** The name of what was thrown without its package, and its words. */
const wordsOf = ({ type, message }: Thrown): string => [type.split('.').at(-1)!, firstLine(message)].filter(Boolean).join(': ');

/** The innermost words of an error in a body. */
function saidWithin(message: string): string | null {
  if (!/[{<]/.test(message)) return null;
  for (const part of partsOfMessage(message)) {
    if (part.kind !== 'json' && part.kind !== 'xml') continue;
    const root = rootOf(part.tree);
    const from = part.kind === 'xml' ? fault(root, 0) : root;
    const text = from && innermost(from, part.kind === 'xml', 0);
    if (text) return text;
  }
  return null;
}
const local = (node: TreeNode): string => node.name.slice(node.name.lastIndexOf(':') + 1).toLowerCase();
function fault(node: TreeNode, depth: number): TreeNode | null {
  if (local(node) === 'fault') return node;
  if (depth > DEEPEST) return null;
  for (const child of node.children) {
    const found = fault(child, depth + 1);
    if (found) return found;
  }
  return null;
}
/** @param within whether what it stands in is an error already: then any words of it count */
function innermost(node: TreeNode, within: boolean, depth: number): string | null {
  if (depth > DEEPEST) return null;
  for (const child of node.children) {
    if (child.children.length === 0) continue;
    const inList = node.kind === 'list';
    const deeper = HOLDERS.has(local(child)) || (inList && within) ? innermost(child, true, depth + 1) : null;
    if (deeper) return deeper;
  }
  if (within || node.children.some((child) => child.children.length === 0 && HOLDERS.has(local(child)))) {
    for (const name of SAYINGS) {
      const leaf = node.children.find((child) => local(child) === name && child.children.length === 0 && child.value.trim() !== '' && child.kind !== 'truth'); // prettier-ignore
      if (leaf) return leaf.value.trim();
      // an element may hold its words beside attributes
      const element = node.children.find((child) => local(child) === name && child.kind === 'element' && child.value.trim() !== '');
      if (element) return element.value.trim();
    }
  }
  return null;
}
const shortened = (text: string): string => {
  const line = text.replace(/\s+/g, ' ').trim();
  return line.length > LONGEST ? `${line.slice(0, LONGEST - 1)}…` : line;
};
