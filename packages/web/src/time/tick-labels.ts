import { clock, day } from './format.ts';

/** As exact as the step between ticks needs it, so that no two of one axis read alike: a day at its midnight, hours and minutes, seconds, thousandths. */
export function tickLabels(times: readonly Date[]): string[] {
  const exact = times.some((time) => time.getTime() % 1000 !== 0);
  const years = new Set(times.map((time) => day(time.toISOString()).slice(0, 4))).size > 1;
  return times.map((time) => {
    const iso = time.toISOString();
    const whole = clock(iso, 3);
    if (whole === '00:00:00.000') return years ? day(iso) : day(iso).slice(5);
    if (exact) return whole.slice(6);
    return whole.slice(6, 8) === '00' ? whole.slice(0, 5) : `:${whole.slice(6, 8)}`;
  });
}
