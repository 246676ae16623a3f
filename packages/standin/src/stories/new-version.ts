import { calcLine, LENS_CALC } from '../components/lens-calc.ts';
import { DAY, MINUTE, SECOND, type Micros } from '../writing/times.ts';
import type { Line, Story } from './story.ts';

/** 4. From 12:20 on lens-calc runs in version 4.12.0, which throws a new exception for prescriptions with a prism. */
export const newVersion = (day: Micros): Story => {
  const from = day + 740 * MINUTE;
  const say = (at: Micros, message: string): Line => ({ at, path: LENS_CALC, text: calcLine(at, 'INFO', 'main', message) });
  return {
    number: 4,
    title: 'a new version of lens-calc fails for prism prescriptions',
    surface: (at, { prism }) => (prism > 0 && at >= from ? 'off the grid' : null),
    lines: [
      say(day - 20 * DAY + 4 * SECOND, 'lens-calc 4.11.0 started, 6 workers'),
      say(from - 9 * SECOND, 'lens-calc 4.11.0 stopping, queue left to the next'),
      say(from, 'lens-calc 4.12.0 started, 6 workers'),
    ],
  };
};
