import { legsOf } from './legs.ts';
import { splitTime } from './split.ts';
import { steps } from './steps.ts';
import { structure } from './structure.ts';
import type { Hop, Leg, Path, Step, StrandRecord } from './types.ts';

/**
 * The path of a strand: its legs, the steps of each, and where the time of all of them went.
 *
 * @param records at least one, in order of (corrected) time
 * @param isLink whether a key ties technically; without any, all is one leg
 */
export function pathOf(records: readonly StrandRecord[], isLink: (key: number) => boolean): Path {
  const legOf = legsOf(records, isLink);
  const members: number[][] = [];
  legOf.forEach((leg, index) => (members[leg - 1] ??= []).push(index));
  const all: Step[] = [];
  const hops: Hop[] = [];
  const stepOf = new Int32Array(records.length);
  const legs: Leg[] = members.map((own, i) => {
    const ownRecords = own.map((index) => records[index]!);
    const found = steps(ownRecords);
    structure(found.steps, ownRecords);
    const shift = all.length;
    for (const step of found.steps) {
      step.id += shift;
      step.leg = i + 1;
      if (step.parent !== null) step.parent += shift;
      step.records = step.records.map((index) => own[index]!);
      all.push(step);
    }
    for (const hop of found.hops) hops.push({ ...hop, from: hop.from + shift, to: hop.to + shift, record: own[hop.record]! });
    own.forEach((index, place) => (stepOf[index] = found.stepOf[place]! + shift));
    return {
      id: i + 1,
      records: own,
      startedAt: Math.min(...found.steps.map((step) => step.startedAt)),
      endedAt: Math.max(...found.steps.map((step) => step.endedAt)),
    };
  });
  const { time, silences } = splitTime(records, all, stepOf, legs);
  return {
    legs,
    steps: all,
    hops,
    stepOf,
    time,
    silences,
    startedAt: Math.min(...legs.map((leg) => leg.startedAt)),
    endedAt: Math.max(...legs.map((leg) => leg.endedAt)),
    duration: time.reduce((sum, share) => sum + share.time, 0),
  };
}
