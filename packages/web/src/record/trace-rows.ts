import { isOwnFrame, type Trace, type TraceFrame } from '@fadenweg/core/structure';

/** A line of a trace as it is shown. */
export type TraceRow =
  | { kind: 'thrown'; key: string; thrown: number; words: string; /** Of its type, with the dot behind it. */ unit: string; text: string }
  | { kind: 'frame'; key: string; frame: TraceFrame; own: boolean; origin: boolean }
  /** Calls of others in a row, folded; `of` names whose. */
  | { kind: 'folded'; key: string; count: number; of: string; /** Their packages or folders, each once. */ units: string[] }
  | { kind: 'omitted'; key: string; count: number }
  | { kind: 'stranger'; key: string; text: string };

const MOST_NAMES = 3;
/** More calls are not drawn. */
const MOST_ROWS = 2000;

/**
 * The rows of a trace: the program's own calls, those of others folded unless their key is in `open`, the origin always shown.
 *
 * @param own prefixes of own packages; none to go by names alone
 */
export function traceRows({ thrown, origin }: Trace, own: readonly string[], open: ReadonlySet<string>): TraceRow[] {
  const rows: TraceRow[] = [];
  thrown.forEach((one, index) => {
    const { relation, type, message } = one;
    rows.push({
      kind: 'thrown',
      key: `t${index}`,
      thrown: index,
      words: relation === 'thrown' ? '' : relation,
      unit: unitOf(type),
      text: [type.slice(unitOf(type).length), message].filter((part) => part !== '').join(': '),
    });
    let folded: TraceFrame[] = [];
    let from = 0;
    const close = (): void => {
      const key = `f${index}.${from}`;
      if (folded.length > 0 && (open.has(key) || open.has('all')))
        folded.forEach((frame, i) => rows.push({ kind: 'frame', key: `${key}.${i}`, frame, own: false, origin: false })); // prettier-ignore
      else if (folded.length > 0)
        rows.push({
          kind: 'folded',
          key,
          count: folded.length,
          of: namesOf(folded),
          units: [...new Set(folded.map(({ unit }) => unit))].filter(Boolean),
        });
      folded = [];
    };
    one.frames.forEach((frame, i) => {
      const isOrigin = origin?.thrown === index && origin.frame === i;
      const isOwn = isOwnFrame(frame, own);
      if (!isOwn && !isOrigin) {
        if (folded.length === 0) from = i;
        folded.push(frame);
        return;
      }
      close();
      rows.push({ kind: 'frame', key: `o${index}.${i}`, frame, own: isOwn, origin: isOrigin });
    });
    close();
    for (const [i, text] of one.strangers.entries()) rows.push({ kind: 'stranger', key: `s${index}.${i}`, text });
    if (one.omitted > 0) rows.push({ kind: 'omitted', key: `m${index}`, count: one.omitted });
  });
  return rows.slice(0, MOST_ROWS);
}

/**
 * What is shown in a trace as its own: what is declared, beside what is known by names or by source texts. Where nothing is known by them, folders tell it.
 */
export function shownAsOwn(traces: readonly Trace[], declared: readonly string[], known: readonly string[]): string[] {
  if (declared.length === 0 || known.length > 0) return [...declared, ...known];
  const frames = traces.flatMap(({ thrown }) => thrown.flatMap((one) => one.frames));
  return [...declared, ...new Set(frames.filter(({ standing, unit }) => standing === 'program' && unit !== '').map(({ unit }) => unit))];
}

const unitOf = (type: string): string => type.slice(0, Math.max(type.lastIndexOf('.'), type.lastIndexOf('\\')) + 1);

/** Whose calls are folded: their packages or folders, as short as can be told apart. */
function namesOf(frames: readonly TraceFrame[]): string {
  const names = [...new Set(frames.map(({ unit, code }) => (unit.includes('/') ? unit.split('/').slice(-2).join('/') : unit || code)))];
  return names.length > MOST_NAMES ? `${names.slice(0, MOST_NAMES).join(', ')} and others` : names.join(', ');
}

export const placeOf = ({ file, line }: TraceFrame): string =>
  file === null ? '' : `${file.slice(file.replaceAll('\\', '/').lastIndexOf('/') + 1)}${line === null ? '' : `:${line}`}`;
