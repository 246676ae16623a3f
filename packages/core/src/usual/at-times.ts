import { regularly, type Case, type LocalSlots, type Regular } from './regularly.ts';
import { usually } from './robust.ts';
import type { Usually } from './types.ts';

/** Spans of hours and weekdays that are told apart. */
const MOST_SPANS = 3;

/** Cases at hours and weekdays at which they regularly are otherwise, and all the rest. */
export function apart(cases: readonly Case[], slots: LocalSlots): { rest: readonly Case[]; parts: Regular[] } {
  const parts: Regular[] = [];
  let rest = cases;
  for (let part = regularly(rest, slots); part && parts.length < MOST_SPANS; part = regularly(rest, slots)) {
    parts.push(part);
    const { span } = part;
    rest = rest.filter(({ at }) => !slots.isIn(span, at));
  }
  return { rest, parts };
}

/** How long something usually takes, and at which times it regularly takes otherwise. */
export function byTimes(cases: readonly Case[], slots: LocalSlots): Usually {
  const { rest, parts } = apart(cases, slots);
  const own = usually(rest.map(({ value }) => value));
  if (parts.length === 0) return own;
  return { ...own, times: parts.map(({ span, days, inside }) => ({ ...usually(inside.map(({ value }) => value)), span, days })) };
}
