import { firstLine } from '../findings/sentence.ts';
import type { Finding, SentencePart } from '../findings/types.ts';
import { MARK } from '../path/marks.ts';
import type { Path, Silence, Step, StrandRecord } from '../path/types.ts';
import type { Duration } from '../units.ts';

/** What one step did, in a sentence. */
export interface Chapter {
  step: number;
  leg: number;
  /** Index of the record that it is told by. */
  record: number;
  sentence: SentencePart[];
  /** A finding points here. */
  knot: boolean;
}

/** Shorter passages are not worth a word, in microseconds. */
const WORTH = 1000;
const words = (text: string): SentencePart => ({ kind: 'words', text });
const duration = (time: Duration): SentencePart => ({ kind: 'duration', time });

/**
 * The strand as a told story: a sentence a step, in the order in which the steps began.
 *
 * @param records in order of time
 * @param findings their records are told even where another one of the step would be
 */
export function storyOf(records: readonly StrandRecord[], path: Path, findings: readonly Finding[]): Chapter[] {
  const silences = new Map(path.silences.map((silence) => [silence.before, silence]));
  const ordered = path.steps.filter((step) => step.records.length > 0).sort((a, b) => a.leg - b.leg || a.startedAt - b.startedAt || a.id - b.id);
  let visited = new Set<string>();
  let leg = 0;
  return ordered.map((step) => {
    const opens = step.leg !== leg;
    if (opens) visited = new Set();
    leg = step.leg;
    const found = findings.find((finding) => step.records.includes(finding.record)) ?? null;
    const told = found?.record ?? step.records.find((index) => records[index]!.marks & MARK.failing) ?? step.records[0]!;
    const sentence: SentencePart[] = [];
    if (opens) sentence.push(words(leg === 1 ? 'It began at ' : 'It was taken up again at '), { kind: 'time', at: step.startedAt }, words(' in '));
    else sentence.push(...arrival(step, silences.get(step.records[0]!)));
    sentence.push({ kind: 'component', text: step.component });
    sentence.push(...doing(step, opens, visited.has(step.component)));
    visited.add(step.component);
    sentence.push(...waits(step, silences));
    sentence.push(words(': '), { kind: 'quote', text: firstLine(records[told]!.message), record: told }, words('.'));
    if (found) sentence.push(...knotWords(found));
    return { step: step.id, leg, record: told, sentence, knot: found !== null };
  });
}

/** How it came to a step. */
function arrival({ attempt }: Step, silence: Silence | undefined): SentencePart[] {
  const again: SentencePart[] = attempt > 1 ? [words(`As attempt ${attempt}, `)] : [];
  if (!silence) return again;
  switch (silence.kind) {
    case 'queue':
      return [...again, words('After '), duration(silence.time), words(` in a queue${silence.component ? ` of ${silence.component}` : ''}, `)];
    case 'gap':
      return [...again, words('After '), duration(silence.time), words(' in which nothing worked on it, ')];
    default:
      return [...again, words('After '), duration(silence.time), words(', ')];
  }
}

/** What it did there: how long it worked, how that ended, and whether it was there before. */
function doing(step: Step, opens: boolean, before: boolean): SentencePart[] {
  const ended = step.outcome === 'failed' ? 'failed' : step.outcome === 'refused' ? 'turned it away' : null;
  const long = step.work >= WORTH;
  if (ended) return [words(long ? ' worked on it for ' : ` ${ended}`), ...(long ? [duration(step.work), words(` and ${ended}`)] : [])];
  if (opens) return long ? [words(', where it took '), duration(step.work)] : [];
  return [words(before ? ' went on' : ' took it over'), ...(long ? [words(' and worked on it for '), duration(step.work)] : [])];
}

/** Long silences inside of the step. */
function waits(step: Step, silences: ReadonlyMap<number, Silence>): SentencePart[] {
  const lock = step.records.flatMap((index) => silences.get(index) ?? []).filter((silence) => silence.kind === 'lock-wait');
  const time = lock.reduce((sum, silence) => sum + silence.time, 0);
  return time === 0 ? [] : [words(', having waited '), duration(time), words(' for a lock')];
}

function knotWords({ kind, missingNext, excess }: Finding): SentencePart[] {
  switch (kind) {
    case 'failed-at':
      return [words(' This is where it failed.')];
    case 'stopped-before':
      return [words(missingNext ? ` Next should have been ${missingNext}, which said nothing.` : ' Nothing came after it.')];
    case 'slowed-by':
      return excess === null ? [words(' This is where it lost its time.')] : [words(' Here it lost '), duration(excess), words('.')];
    case 'refused':
      return [words(' This is why it was turned away.')];
    case 'doubled':
      return [words(' It is the second one.')];
    case 'odd-volume':
    case 'odd-result':
      return [words(' That is not what it usually is.')];
    case 'went-astray':
      return [words(' That is not its usual way.')];
  }
}
