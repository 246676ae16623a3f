import { Random } from '@fadenweg/standin';

const MINUTE = 60_000_000;
const HOUR = 60 * MINUTE;
const DAY = 24 * HOUR;
/** A Monday, midnight in the zone that is asked for. */
const MONDAY = Date.UTC(2026, 8, 7) * 1000;

/** A strand as it is stored. */
export interface DrawnStrand {
  flow: string;
  outcome: string;
  startedAt: number;
  duration: number;
  signature: string | null;
}
/** Something that went on for a while on the last day. */
export interface Incident {
  kind: 'finding' | 'late' | 'gone';
  flow: string;
  signature: string | null;
  from: number;
  to: number;
  /** Of what comes meanwhile, at least four times the usual. */
  share: number;
  /** That were hit. */
  strands: number;
}
export interface DrawnDays {
  strands: DrawnStrand[];
  incidents: Incident[];
  from: number;
  /** The last day. */
  day: { from: number; to: number };
}

interface Habit {
  flow: string;
  /** Strands of a day. */
  rate: number;
  byHour: number[];
  weekend: number;
  /** How far an hour strays from its mean, as a share of it. */
  strays: number;
  /** Started by a clock, each so many minutes; null where people begin them. */
  each: number | null;
  faults: { signature: string; outcome: string; share: number }[];
  lasts: number;
}

/**
 * Days of a system by chance: flows with hours, weekends and moods of their own, usual faults, jobs by the clock; on the last day incidents, or none. No logs, only the strands that would come of them: it
 * is judged what is said about their counts.
 */
export function drawnDays(seed: number, withIncidents: boolean): DrawnDays {
  const random = new Random(seed);
  const days = random.whole(8, 28);
  const habits = Array.from({ length: random.whole(3, 12) }, (_, i) => habitOf(random.fork(`flow ${i}`), `flow-${i}`));
  const from = MONDAY;
  const last = from + (days - 1) * DAY;
  const incidents = withIncidents ? draw(random.fork('incidents'), habits, last) : [];
  const strands: DrawnStrand[] = [];
  for (const habit of habits) {
    const own = random.fork(`strands of ${habit.flow}`);
    for (let day = 0; day < days; day++) come(own, habit, from + day * DAY, day % 7 >= 5, incidents, strands);
  }
  return { strands, incidents: incidents.filter((one) => one.kind === 'gone' || one.strands >= 10), from, day: { from: last, to: last + DAY } };
}

function habitOf(random: Random, flow: string): Habit {
  const each = random.chance(0.3) ? random.pick([5, 10, 15, 30, 60]) : null;
  const peak = random.whole(8, 17);
  const flat = random.chance(0.2);
  const byHour = Array.from({ length: 24 }, (_, hour) => (flat ? 1 : 0.05 + Math.exp(-((hour - peak) ** 2) / random.whole(8, 30))));
  const sum = byHour.reduce((whole, one) => whole + one, 0);
  return {
    flow,
    rate: Math.round(Math.exp(Math.log(40) + random.next() * Math.log(50))),
    byHour: byHour.map((one) => one / sum),
    weekend: random.chance(0.5) ? 1 : 0.2 + 0.6 * random.next(),
    strays: random.next() * 0.35,
    each,
    faults: Array.from({ length: random.whole(1, 4) }, (_, i) => ({
      signature: `failed-at|${flow}|part-${i}||${i}`,
      outcome: random.pick(['failed', 'stalled', 'refused', 'slow']),
      share: Math.exp(Math.log(0.0005) + random.next() * Math.log(each === null ? 40 : 6)),
    })),
    lasts: Math.round(Math.exp(Math.log(50_000) + random.next() * Math.log(4000))),
  };
}

function draw(random: Random, habits: readonly Habit[], day: number): Incident[] {
  const busy = habits.filter((one) => one.each === null && one.rate >= 150);
  const found: Incident[] = [];
  for (const habit of busy) {
    if (!random.chance(0.5)) continue;
    const begin = day + random.whole(7 * 60, 16 * 60) * MINUTE;
    const to = begin + random.whole(30, 240) * MINUTE;
    const kind = random.chance(0.75) ? ('finding' as const) : ('late' as const);
    const known = random.chance(0.4) ? random.pick(habit.faults).signature : `failed-at|${habit.flow}|new||9`;
    const usual = habit.faults.find((one) => one.signature === known)?.share ?? 0;
    const share = Math.min(0.9, Math.max(0.1, 4 * usual) + 0.4 * random.next());
    found.push({ kind, flow: habit.flow, signature: kind === 'finding' ? known : null, from: begin, to, share, strands: 0 });
  }
  for (const habit of habits.filter((one) => one.each !== null && one.each <= 30)) {
    if (!random.chance(0.3)) continue;
    const begin = day + random.whole(2, 18) * HOUR;
    found.push({ kind: 'gone', flow: habit.flow, signature: null, from: begin, to: begin + random.whole(3, 6) * HOUR, share: 1, strands: 0 });
  }
  return found;
}

function come(random: Random, habit: Habit, day: number, weekend: boolean, incidents: readonly Incident[], strands: DrawnStrand[]): void {
  for (let hour = 0; hour < 24; hour++) {
    const mean = habit.rate * habit.byHour[hour]! * (weekend ? habit.weekend : 1) * Math.max(0, 1 + habit.strays * normal(random));
    const begins =
      habit.each === null
        ? Array.from({ length: poisson(random, mean) }, () => day + hour * HOUR + Math.floor(random.next() * HOUR))
        : Array.from({ length: 60 / habit.each }, (_, i) => day + hour * HOUR + i * habit.each! * MINUTE + Math.floor(random.next() * 5_000_000));
    for (const startedAt of begins.sort((a, b) => a - b)) {
      const incident = incidents.find((one) => one.flow === habit.flow && startedAt >= one.from && startedAt < one.to);
      if (incident?.kind === 'gone') continue;
      const fault = usualFault(random, habit);
      const duration = Math.round(habit.lasts * Math.exp(0.4 * normal(random)));
      const hit = incident !== undefined && random.next() < incident.share;
      if (hit) incident.strands++;
      if (hit && incident.kind === 'finding')
        strands.push({
          flow: habit.flow,
          outcome: habit.faults.find((one) => one.signature === incident.signature)?.outcome ?? 'failed',
          startedAt,
          duration,
          signature: incident.signature,
        });
      else if (hit) strands.push({ flow: habit.flow, outcome: 'done', startedAt, duration: duration * 6, signature: null });
      else strands.push({ flow: habit.flow, outcome: fault?.outcome ?? 'done', startedAt, duration, signature: fault?.signature ?? null });
    }
  }
}
function usualFault(random: Random, { faults }: Habit): Habit['faults'][number] | null {
  let left = random.next();
  for (const one of faults) if ((left -= one.share) < 0) return one;
  return null;
}
function normal(random: Random): number {
  return Math.sqrt(-2 * Math.log(1 - random.next())) * Math.cos(2 * Math.PI * random.next());
}
/** By its own law for few, by the normal one for many. */
function poisson(random: Random, mean: number): number {
  if (mean > 60) return Math.max(0, Math.round(mean + Math.sqrt(mean) * normal(random)));
  const least = Math.exp(-mean);
  let count = 0;
  for (let product = random.next(); product > least; product *= random.next()) count++;
  return count;
}
