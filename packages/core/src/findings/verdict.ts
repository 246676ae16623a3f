import { depthOf } from '../path/depth.ts';
import { MARK } from '../path/marks.ts';
import type { Path, StrandRecord } from '../path/types.ts';
import { MANY } from '../usual/habits.ts';
import { isComplete } from '../usual/complete.ts';
import type { Usual } from '../usual/index-of.ts';
import { behindTheEnd, findingOf, missingComponent, stoppedAt } from './amiss.ts';
import { reports, turnedAway } from './answers.ts';
import { departed } from './departed.ts';
import { unexpected } from './expected.ts';
import { failure, ownWords } from './failed.ts';
import { refusal } from './refused.ts';
import type { Detector, JudgedLeg } from './leg.ts';
import { holeAfter, outOfSight } from './out-of-sight.ts';
import { lastReached, silence } from './stopped.ts';
import { isHarmless, tellingRecords } from './telling.ts';
import type { Finding, Verdict } from './types.ts';
import { waitsFor } from './waits-for.ts';
import { oddResults } from './odd-result.ts';
import { oddVolumes } from './volume.ts';

/** What departs by volumes that are expected, and from what is usual. */
const LEARNED: readonly Detector[] = [oddResults, oddVolumes, departed];
/** Findings that are told of one leg. */
const MOST = 3;
/** Kinds of findings by what a record states, and all by which a leg that came to an end is odd. */
const STATED: readonly Finding['kind'][] = ['odd-volume', 'odd-result'];
const ODD: readonly Finding['kind'][] = [...STATED, 'went-astray'];
/** Warnings and errors. */
const LOUD = 4;
const ERROR = 5;
/** A leg that ends with what so many good ones end with has come to its end, where nothing is declared. */
const USUAL_END = 0.05;
const ALIKE = 3;

/** How a leg ended and why: by marks and declared rules, and by what is usual where that is known. */
export function verdict(leg: JudgedLeg): Verdict {
  const { records, path, flow, usual, evidenceEnd, patience } = leg;
  const marked = (bit: number): number[] => records.flatMap((record, index) => (record.marks & bit ? [index] : []));
  const done = marked(MARK.done);
  const lastDone = done[done.length - 1] ?? -1;
  const failing = marked(MARK.failing).filter(
    (index) => index > lastDone && !(records[index]!.marks & MARK.harmless || (usual && isHarmless(records[index]!, usual))),
  );
  const firstFailing = failing[0];
  const passedOn = reports(records);
  const waits = waitsFor(records);
  const firstRefusing = marked(MARK.refusing).find((index) => index > lastDone);
  const answer = lastDone < 0 ? turnedAway(records, usual) : -1;
  /** Whether a record may tell why another one says what it says: it is no report of it, and not of whoever waited for it. */
  const mayTellWhy = (one: number, index: number): boolean => {
    const [telling, told] = [records[one]!, records[index]!];
    if (passedOn.has(one) || waits(telling.component, told.component)) return false;
    // in whole seconds nobody knows which of the two was first
    return !(
      ((telling.marks | told.marks) & MARK.coarse) !== 0 &&
      Math.floor(telling.at / 1e6) === Math.floor(told.at / 1e6) &&
      telling.level < told.level
    );
  };
  /** The first record before another one, of another component, that tells this leg from good ones; of several tries that ended alike the last, after which it was given up. */
  const tellingBefore = (index: number): number | undefined => {
    const telling = usual ? tellingRecords(records.slice(0, index), usual) : [];
    const first = telling.find((one) => records[one]!.component !== records[index]!.component && mayTellWhy(one, index));
    return first === undefined ? undefined : telling.filter((one) => saysTheSame(records[one]!, records[first]!)).at(-1);
  };

  if (firstRefusing !== undefined && (firstFailing === undefined || firstRefusing < firstFailing))
    return { outcome: 'refused', findings: [refusal(records, firstRefusing, tellingBefore(firstRefusing))] };
  if (answer >= 0) {
    const root = decided(leg, answer, passedOn, waits);
    // an error in words of its own, further in than who answered, is more than a no
    const broke = root !== undefined && records[root]!.level >= ERROR && records[root]!.component !== records[answer]!.component && !passedOn.has(root); // prettier-ignore
    if (!broke) return { outcome: 'refused', findings: [refusal(records, answer, root)] };
  }
  const complete = usual !== null && (endsAsUsual(records, usual) || isComplete(records, usual));
  // tried again and then well: nothing is missing that good ones have, and whoever failed went on
  const madeGood = complete && usual !== null && isComplete(records, usual) && failing.every((index) => goesOn(records, index, waits));
  if (firstFailing !== undefined && !madeGood)
    return { outcome: 'failed', findings: failures(records, path, failing, tellingBefore(firstFailing), passedOn) };
  const declared = unexpected(leg);
  const learned = inOrder(LEARNED.flatMap((detector) => detector(leg)));
  const departing = ranked(declared, learned);
  const good = madeGood && firstFailing !== undefined ? [madeGoodBy(records, path, failing, passedOn)] : [];
  // what is declared counts whatever end was reached
  if (declared[0]?.kind === 'stopped-before') return { outcome: 'stalled', findings: departing };
  const ended = lastDone >= 0 || marked(MARK.ends).length > 0 || complete;
  const isOdd = departing[0] !== undefined && ODD.includes(departing[0].kind);
  if (ended && flow && usual) {
    const amiss = behindTheEnd(leg);
    if (amiss) return { outcome: amiss.outcome, findings: ranked(amiss.findings, departing) };
  }
  if (ended || !flow) return { outcome: departing.length === 0 ? 'done' : isOdd ? 'odd' : 'slow', findings: ranked(good, departing) };
  if (evidenceEnd - records[records.length - 1]!.at > patience) {
    const no = usual ? saidNo(records, usual, passedOn) : undefined;
    if (no !== undefined) return { outcome: 'refused', findings: ranked([refusal(records, no, undefined)], departing) };
    const stopped = stoppedAt(leg);
    const last = stopped?.record ?? lastReached(records);
    const due = stopped && missingComponent(stopped, records);
    const hole = holeAfter(leg, last, due ?? null);
    if (hole) return { outcome: 'out-of-sight', findings: [outOfSight(records, last, hole)] };
    const telling = usual ? tellingRecords(records.slice(0, last + 1), usual)[0] : undefined;
    return {
      outcome: 'stalled',
      findings: ranked([stopped ? findingOf(stopped, leg, telling) : silence(leg, last, telling)], departing),
    };
  }
  return isOdd ? { outcome: 'odd', findings: departing } : { outcome: 'running', findings: [] };
}

/** Where it was decided that a leg is turned away: what good ones do not have, or a warning, said by whoever waits for nobody else who says such. */
function decided(
  { records, path, usual }: JudgedLeg,
  answer: number,
  passedOn: ReadonlySet<number>,
  waits: ReturnType<typeof waitsFor>,
): number | undefined {
  const telling = new Set(usual ? tellingRecords(records, usual) : []);
  const all = records.flatMap((record, index) => (index !== answer && (telling.has(index) || record.level >= LOUD) ? [index] : []));
  const some = ownWords(all, passedOn);
  const within = some.filter((one) => !some.some((other) => waits(records[one]!.component, records[other]!.component)));
  return [...within].sort((a, b) => depthOf(path, b) - depthOf(path, a) || a - b)[0];
}

/** Whether who told of a failure, or who waited for it, said something afterwards that is no failure. */
function goesOn(records: readonly StrandRecord[], index: number, waits: ReturnType<typeof waitsFor>): boolean {
  const { component } = records[index]!;
  return records.slice(index + 1).some((later) => !(later.marks & MARK.failing) && (later.component === component || waits(later.component, component))); // prettier-ignore
}

/**
 * The last word of a component, a result or a warning that no good one has, or words of a kind that none says: not silence, but an answer. Behind it only those speak who spoke before; where it went on to
 * others, these fell silent.
 */
function saidNo(records: readonly StrandRecord[], usual: Usual, passedOn: ReadonlySet<number>): number | undefined {
  const last = new Map<string, number>();
  const first = new Map<string, number>();
  records.forEach(({ component }, index) => {
    if (!first.has(component)) first.set(component, index);
    if (!passedOn.has(index)) last.set(component, index);
  });
  const told = new Set(tellingRecords(records, usual));
  const unheard = (record: StrandRecord): boolean =>
    usual.of.legs >= MANY && !(record.marks & MARK.waits) && !usual.alike(record).some((one) => one.legs > 0);
  // what follows from something said before is no answer
  const index = records.findIndex((record, i) => told.has(i) || unheard(record));
  const isLast = index >= 0 && last.get(records[index]!.component) === index && ![...first.values()].some((begin) => begin > index);
  return isLast ? index : undefined;
}

/** A failure that was made good: tried again and then well. */
function madeGoodBy(records: readonly StrandRecord[], path: Path, failing: readonly number[], passedOn: ReadonlySet<number>): Finding {
  const found = failure(records, path, failing, undefined, passedOn);
  return { ...found, sentence: [{ kind: 'words', text: 'Made good, it went on well. ' }, ...found.sentence] };
}

const saysTheSame = (one: StrandRecord, other: StrandRecord): boolean =>
  one.component === other.component && one.shape === other.shape && one.traits === other.traits;

/** What told the leg from good ones before it failed, and what failed by its own words. */
function failures(
  records: readonly StrandRecord[],
  path: Path,
  failing: readonly number[],
  telling: number | undefined,
  passedOn: ReadonlySet<number>,
): Finding[] {
  const own = failure(records, path, failing, undefined, passedOn);
  if (telling === undefined || records[telling]!.component === own.component) return [own];
  return ranked([failure(records, path, failing, telling, passedOn), own], []);
}

function endsAsUsual(records: readonly StrandRecord[], usual: Usual): boolean {
  const place = usual.placeOf(records[records.length - 1]!);
  return usual.of.ends.some((end) => end.saying === place && end.share >= USUAL_END && end.share * usual.of.legs >= ALIKE);
}

/** Volumes and results before what came late, but for those that the very record states that came late: they tell why. */
function inOrder(departing: readonly Finding[]): Finding[] {
  const late = departing.filter((one) => !STATED.includes(one.kind));
  const volumes = departing.filter((one) => STATED.includes(one.kind));
  const why = volumes.every((one) => late.some((other) => other.record === one.record));
  return ranked(why ? [...late, ...volumes] : [...volumes, ...late], []);
}

/** One finding for each thing that is found, the first ones first. */
function ranked(first: readonly Finding[], then: readonly Finding[]): Finding[] {
  const told = new Set<string>();
  return [...first, ...then]
    .filter((one) => {
      const place = `${one.kind} ${one.record}`;
      if (told.has(place)) return false;
      told.add(place);
      return true;
    })
    .slice(0, MOST)
    .map((one, i) => ({ ...one, rank: i + 1 }));
}
