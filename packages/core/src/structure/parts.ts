import { jsonTree } from './json.ts';
import type { Part, TreePart } from './types.ts';
import { linesOf } from './lines.ts';
import { headersAt, pairsOf, sdpAt } from './listings.ts';
import { planAt } from './plan.ts';
import { sqlIn } from './sql.ts';
import { tableAt } from './table.ts';
import { tracesIn } from './traces/traces.ts';
import { xmlParts } from './xml.ts';

/** Longer messages are structured up to here, in UTF-16 units. */
const LONGEST = 4_000_000;
/** Trees of fewer parts are no structure worth a view. */
const FEWEST_NODES = 2;
/** Statements are looked for up to here. */
const LONGEST_STATEMENT = 100_000;
/** Of a stretch of text, so many lines are looked through. */
const MOST_LINES = 50_000;
/** Places at which a tree is looked for. */
const MOST_TRIES = 40;

/**
 * What a message is made of, its stretches in order, all of it covered: text, stack traces, JSON or XML wherever it stands, and in what is left
 * headers, session descriptions, plans, statements, tables and pairs.
 *
 * @param message in which a body may follow headers, or stand behind some words
 * @param own prefixes of packages that are the program's own, for traces
 */
export function partsOfMessage(message: string, own: readonly string[] = []): Part[] {
  const text = message.length > LONGEST ? message.slice(0, LONGEST) : message;
  const parts: Part[] = [];
  let done = 0;
  const push = (part: Exclude<Part, { kind: 'text' }>): void => {
    if (part.from > done) parts.push({ kind: 'text', from: done, to: part.from });
    parts.push(part);
    done = part.to;
  };
  let tries = 0;
  const trees = (until: number): void => {
    for (let at = nextStart(text, done); at >= 0 && at < until && tries < MOST_TRIES; tries++) {
      const found = text[at] === '<' ? xmlAt(text, at, until) : jsonAt(text, at, until);
      if (found) push(found);
      at = nextStart(text, found ? found.to : at + 1);
    }
  };
  for (const { from, to, trace } of tracesIn(text, own)) {
    trees(from);
    push({ kind: 'trace', from, to, trace });
  }
  trees(text.length);
  if (done < message.length || parts.length === 0) parts.push({ kind: 'text', from: done, to: message.length });
  return parts.flatMap((part) => (part.kind === 'text' ? withinText(text, part) : [part]));
}

/** What a stretch of plain text is made of. */
function withinText(text: string, whole: Part & { kind: 'text' }): Part[] {
  const parts: Part[] = [];
  const until = Math.min(whole.to, text.length);
  const lines = linesOf(text, whole.from, until).slice(0, MOST_LINES);
  let done = whole.from;
  const push = (part: Exclude<Part, { kind: 'text' }>): void => {
    if (part.from > done) parts.push(...withStatement(text, done, part.from));
    parts.push(part);
    done = part.to;
  };
  for (let i = 0; i < lines.length;) {
    const { from } = lines[i]!;
    const to = (end: number): number => lines[end - 1]!.to;
    const [headers, sdp, plan, table] = [headersAt(lines, i), sdpAt(lines, i), planAt(lines, i), tableAt(lines, i)];
    if (headers) push({ kind: 'headers', from, to: to(headers.end), rows: headers.rows });
    else if (sdp) push({ kind: 'sdp', from, to: to(sdp.end), rows: sdp.rows });
    else if (plan) push({ kind: 'plan', from, to: to(plan.end), nodes: plan.nodes });
    else if (table) push({ kind: 'table', from, to: to(table.end), head: table.head, rows: table.rows });
    else {
      const rows = pairsOf(lines[i]!);
      if (rows) push({ kind: 'pairs', from, to: lines[i]!.to, rows });
      i++;
      continue;
    }
    i = (headers ?? sdp ?? plan ?? table)!.end;
  }
  if (done < whole.to || parts.length === 0) parts.push(...withStatement(text, done, whole.to));
  return parts;
}

function withStatement(text: string, from: number, to: number): Part[] {
  const sql = sqlIn(text, from, Math.min(to, from + LONGEST_STATEMENT));
  if (!sql) return [{ kind: 'text', from, to }];
  const parts: Part[] = [{ kind: 'sql', ...sql }];
  if (sql.from > from) parts.unshift({ kind: 'text', from, to: sql.from });
  if (sql.to < to) parts.push({ kind: 'text', from: sql.to, to });
  return parts;
}

/** Where JSON or XML may begin: a brace or bracket with what belongs behind it, a tag. */
function nextStart(text: string, from: number): number {
  const start = /[{[](?=\s*["{[\]}\d-])|<(?=[?!]?[A-Za-z_][\w:.-]*[\s>/?])/g;
  start.lastIndex = from;
  return start.exec(text)?.index ?? -1;
}

function xmlAt(text: string, at: number, until: number): TreePart | null {
  const found = xmlParts(text.slice(at, until), at);
  if (!found || found.nodes < FEWEST_NODES) return null;
  return { kind: 'xml', from: at, to: at + found.end, tree: found.tree, nodes: found.nodes, broken: found.broken };
}
function jsonAt(text: string, at: number, until: number): TreePart | null {
  const end = Math.min(until, closing(text, at));
  const found = jsonTree(text.slice(at, end), at);
  if (!found || found.nodes < FEWEST_NODES) return null;
  // brackets in a sentence are no JSON
  if (found.broken && !/^[{[]\s*["{[]/.test(text.slice(at, at + 100))) return null;
  return { kind: 'json', from: at, to: end, tree: found.tree, nodes: found.nodes, broken: found.broken };
}

/** Behind the bracket that closes the one at a place; the end of the text where none does. */
function closing(text: string, at: number): number {
  let depth = 0;
  let inText = false;
  for (let i = at; i < text.length; i++) {
    const code = text.charCodeAt(i);
    if (inText) {
      if (code === 92) i++;
      else if (code === 34) inText = false;
    } else if (code === 34) inText = true;
    else if (code === 123 || code === 91) depth++;
    else if (code === 125 || code === 93) if (--depth === 0) return i + 1;
  }
  return text.length;
}
