import { go, javascript, other, php, python, ruby } from './script.ts';
import type { Found, TraceFrame, Language, Thrown, Trace } from './types.ts';
import { dotnet, java } from './virtual-machine.ts';

/** The surest first: those whose lines are unmistakable. */
const READERS = [python, go, php, ruby, java, dotnet, javascript, other];
/** More lines are not looked through. */
const MOST_LINES = 50_000;
/** A trace begins on a line that holds no more. */
const LONGEST_HEAD = 2000;

/** A trace within a text. */
export interface TraceAt {
  from: number;
  to: number;
  trace: Trace;
}

/**
 * Stack traces in a text, in the order in which they stand, with their causes unrolled. What does not belong to one is left out; of a trace that is cut
 * off what is there is told.
 *
 * @param own prefixes of packages that are the program's own; '' to go by names alone
 */
export function tracesIn(text: string, own: readonly string[] = []): TraceAt[] {
  if (!/\n[ \t]{0,80}(?:at |in |by |File "|from |#\d|\S{1,300}\.go:\d|\S.{0,2000}\r?\n[ \t]{1,80}\S{1,300}\.go:\d)|@\S{1,300}:\d+:\d+/.test(text))
    return [];
  const lines = text.split('\n', MOST_LINES).map((line) => (line.endsWith('\r') ? line.slice(0, -1) : line));
  const starts: number[] = [0];
  for (let at = text.indexOf('\n'); at >= 0 && starts.length <= lines.length; at = text.indexOf('\n', at + 1)) starts.push(at + 1);
  const found: TraceAt[] = [];
  for (let i = 0; i < lines.length; i++) {
    if (lines[i] === '' || lines[i]!.length > LONGEST_HEAD) continue;
    const one = best(lines, i);
    if (!one) continue;
    const to = one.end < starts.length ? starts[one.end]! : text.length;
    found.push({ from: starts[i]! + (one.begin ?? 0), to, trace: { language: one.language, thrown: one.thrown, origin: originOf(one.thrown, own) } });
    i = one.end - 1;
  }
  return found;
}

/** The first reader that finds frames of its own. */
function best(lines: readonly string[], from: number): (Found & { language: Language }) | null {
  for (const { language, read } of READERS) {
    const found = read(lines, from);
    if (found && found.thrown.some(({ frames }) => frames.length > 0)) return { ...found, language };
  }
  return null;
}

export const isOwnFrame = ({ unit, standing }: TraceFrame, own: readonly string[]): boolean =>
  own.length > 0 ? own.some((prefix) => unit === prefix || ['.', '/', '\\'].some((mark) => unit.startsWith(prefix + mark))) : standing === 'program';

/** The innermost call of the program itself in the last cause; where the program has none there, of any before it. */
export function originOf(thrown: readonly Thrown[], own: readonly string[]): Trace['origin'] {
  const chain = thrown.flatMap((one, index) => (one.relation === 'suppressed' ? [] : [index]));
  for (const is of [(frame: TraceFrame) => isOwnFrame(frame, own), (frame: TraceFrame) => frame.standing !== 'platform', () => true]) {
    for (const index of [...chain].reverse()) {
      const frame = thrown[index]!.frames.findIndex(is);
      if (frame >= 0) return { thrown: index, frame };
    }
  }
  return null;
}

/** Letters of a name alone, in lower case: `order-desk` and `orderdesk` are the same. */
const plain = (name: string): string => name.toLowerCase().replace(/[^\p{L}\p{N}]/gu, '');

/**
 * Packages that are probably the program's own: of those that are neither the runtime's nor added, the ones that bear the name of its component or its
 * logger, or hold what it throws. Empty where nothing tells, or where folders tell it already.
 */
export function ownByName(traces: readonly Trace[], component: string, logger: string | null): string[] {
  const byName = traces.filter(({ language }) => language === 'java' || language === 'dotnet');
  const units = new Set(byName.flatMap(({ thrown }) => thrown.flatMap(({ frames }) => frames.filter(({ standing }) => standing === 'program').map(({ unit }) => unit)))); // prettier-ignore
  const heads = [...units].map((unit) => unit.split('.').slice(0, 2).join('.')).filter((head) => head !== '');
  const distinct = [...new Set(heads)];
  if (distinct.length < 2) return [];
  const types = byName.flatMap(({ thrown }) => thrown.map(({ type }) => type));
  const abbreviated = (head: string): boolean => {
    const parts = logger?.split('.') ?? [];
    const own = head.split('.');
    return parts.length > own.length && own.every((part, i) => part.startsWith(parts[i]!) && parts[i] !== '');
  };
  const bears = (head: string): boolean =>
    [...units].some((unit) => unit.startsWith(head) && unit.split('.').some((part) => part.length > 3 && (plain(component).includes(plain(part)) || plain(part).includes(plain(component))))); // prettier-ignore
  const own = distinct.filter((head) => bears(head) || abbreviated(head) || types.some((type) => type.startsWith(`${head}.`)));
  return own.length === distinct.length ? [] : own;
}
