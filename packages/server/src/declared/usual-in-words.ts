import type { FlowUsual, UsualSpan, UsualTime } from '@fadenweg/api';
import { isoMicros } from '@fadenweg/core/units';
import { learnedPatience, surelyContinues, type AtTimes, type FlowUsual as CoreUsual, type Usually } from '@fadenweg/core/usual';

const spanOf = ({ span, days }: AtTimes): UsualSpan => ({ ...span, days });
const timeOf = ({ median, p90, p99, fence, times = [] }: Usually): UsualTime => ({
  medianMs: median / 1000,
  p90Ms: p90 / 1000,
  p99Ms: p99 / 1000,
  fenceMs: fence / 1000,
  times: times.map((one) => ({ ...spanOf(one), medianMs: one.median / 1000, p99Ms: one.p99 / 1000 })),
});

/** What is usual for a flow as the API tells it: sayings of good legs in the order in which they usually come. */
export function usualInWords(usual: CoreUsual, label: string): FlowUsual {
  const order = usual.sayings
    .flatMap(({ legs }, place) => (legs > 0 ? [place] : []))
    .sort((a, b) => usual.sayings[a]!.position - usual.sayings[b]!.position);
  const shown = new Map(order.map((place, index) => [place, index]));
  return {
    flow: usual.flow,
    label,
    legs: usual.legs,
    bad: usual.bad,
    since: isoMicros(usual.since),
    until: isoMicros(usual.until),
    whole: timeOf(usual.whole),
    patienceMs: learnedPatience(usual.silence) / 1000,
    records: usual.records,
    sayings: order.map((place) => {
      const { component, text, traits, legs, bad, most, after, then, volumes } = usual.sayings[place]!;
      return {
        component,
        text,
        traits,
        legs,
        bad,
        most,
        after: after && { saying: shown.get(after.saying)!, ...timeOf(after.wait) },
        then: then.map(({ saying, share, wait }) => ({ saying: shown.get(saying)!, share, ...timeOf(wait) })),
        volumes: volumes.map(({ of, median, least, most: top, times = [] }) => ({
          of,
          median,
          least,
          most: top,
          times: times.map((one) => ({ ...spanOf(one), least: one.least, most: one.most })),
        })),
      };
    }),
    ends: usual.ends.map(({ saying, share }) => ({ saying: shown.get(saying)!, share })),
    variants: usual.variants,
    continues: usual.continues.map((one) => ({
      ...timeOf(one.wait),
      component: one.component,
      text: one.text,
      legs: one.legs,
      of: one.of,
      surely: surelyContinues(usual).includes(one),
    })),
    zone: usual.zone,
    changed: usual.changed.map((one) => {
      const unit = one.what === 'there' ? 1 : 1000;
      return { ...one, at: isoMicros(one.at), before: one.before / unit, since: one.since / unit };
    }),
  };
}
