import type { FlowUsual, UsualTime } from '@fadenweg/api';
import { isoMicros, type FlowUsual as CoreUsual, type Usually } from '@fadenweg/core';

const timeOf = ({ median, p90, p99, fence }: Usually): UsualTime => ({
  medianMs: median / 1000,
  p90Ms: p90 / 1000,
  p99Ms: p99 / 1000,
  fenceMs: fence / 1000,
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
        volumes: volumes.map(({ of, median, least, most: top }) => ({ of, median, least, most: top })),
      };
    }),
    ends: usual.ends.map(({ saying, share }) => ({ saying: shown.get(saying)!, share })),
    variants: usual.variants,
  };
}
