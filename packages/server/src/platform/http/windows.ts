import Joi from 'joi';
import { isZone } from '@fadenweg/core/reading';
import type { Microseconds } from '@fadenweg/core/units';
import { instant, list, microsOf, splitList } from './inputs.ts';
import { Refusal } from './problems.ts';

/** A window, the environments that are looked at, and the zone of whoever asks. */
export const zone = Joi.string().max(60).default('UTC');
export const windowInput = { from: instant.required(), to: instant.required(), environment: list.required(), zone };
export interface WindowQuery {
  from: string;
  to: string;
  environment: string;
  zone: string;
}
export interface AskedWindow {
  from: Microseconds;
  to: Microseconds;
  environment: string[];
  /** IANA zone. */
  zone: string;
}

export const windowOf = ({ from, to, environment, zone }: WindowQuery, longest: Microseconds): AskedWindow =>
  checkedWindow({ from: microsOf(from), to: microsOf(to), environment: splitList(environment) ?? [], zone }, longest);

/** @throws {@link Refusal} for an unknown zone, a window that is empty or longer than that */
export function checkedWindow(window: AskedWindow, longest: Microseconds): AskedWindow {
  const { from, to, zone } = window;
  if (!isZone(zone)) throw new Refusal(400, 'Unknown time zone', `There is no time zone “${zone}”.`, 'Give a name such as Europe/Berlin.');
  if (to <= from) throw new Refusal(400, 'The window is empty', 'Its end has to be after its begin.');
  if (to - from > longest)
    throw new Refusal(
      400,
      'The window is too long',
      `At most ${Math.round(longest / DAY).toLocaleString('en')} days are looked at at once.`,
      'Choose a shorter one.',
    );
  return window;
}
const DAY = 86_400_000_000;
