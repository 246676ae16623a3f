import type { ClockReading, ClockSpan } from './types.ts';

/** Clocks that are steered drift at most so much (the limit of network time protocols: 500 parts in a million). */
export const MOST_DRIFT = 500e-6;
/** What it costs to say that a clock was set, that it drifts, and to leave a reading out: one between two that agree is left out, two are not. */
const COST = { span: 2, drift: 0.4, out: 2.5 };

/** A clock is right where nine of ten readings allow it, of as many as this: one in so many is narrowed by what is mistaken. */
const NEARLY_ALL = 0.9;
const MANY = 10;

interface Line {
  ahead: number;
  drift: number;
}

/**
 * The simplest account of a clock: the fewest stretches in which it kept its pace, such that nearly all readings hold. No difference where none
 * would do, else a constant one, else one that grows evenly.
 *
 * @param readings in order of time
 * @returns spans that follow each other without holes; none where there are no readings
 */
export function fit(readings: readonly ClockReading[]): ClockSpan[] {
  const count = readings.length;
  if (count === 0) return [];
  // cheapest account of the first `i` readings
  const cost = new Float64Array(count + 1).fill(Infinity);
  const choice: { from: number; line: Line | null }[] = [];
  cost[0] = 0;
  for (let to = 1; to <= count; to++) {
    cost[to] = cost[to - 1]! + COST.out;
    choice[to] = { from: to - 1, line: null };
    const steady = new Steady();
    for (let from = to - 1; from >= 0 && steady.add(readings[from]!); from--) {
      const sum = cost[from]! + COST.span;
      if (sum < cost[to]!) {
        cost[to] = sum;
        choice[to] = { from, line: steady.line() };
      }
    }
    for (let from = to - 2; from >= 0; from--) {
      const sum = cost[from]! + COST.span + COST.drift;
      if (sum >= cost[to]!) continue;
      const line = evenly(readings.slice(from, to));
      if (!line) break;
      cost[to] = sum;
      choice[to] = { from, line };
    }
  }
  const spans: ClockSpan[] = [];
  for (let to = count; to > 0;) {
    const { from, line } = choice[to]!;
    if (line) spans.unshift(rightOrAs(readings.slice(from, to), line));
    to = from;
  }
  joined(spans);
  return spans;
}

/** A constant difference, as long as there is one. */
class Steady {
  private low = -Infinity;
  private high = Infinity;

  add({ low, high }: ClockReading): boolean {
    this.low = Math.max(this.low, low);
    this.high = Math.min(this.high, high);
    return this.low <= this.high;
  }
  line(): Line {
    const { low, high } = this;
    return { ahead: low <= 0 && high >= 0 ? 0 : middle(low, high), drift: 0 };
  }
}

const middle = (low: number, high: number): number => (low === -Infinity ? high : high === Infinity ? low : (low + high) / 2);
const timeOf = ({ from, to }: ClockReading): number => (from + to) / 2;

/** A difference that grows evenly through all readings, or null where there is none. `ahead` holds at the first reading's begin. */
function evenly(readings: readonly ClockReading[]): Line | null {
  let [least, most] = [-MOST_DRIFT, MOST_DRIFT];
  for (let i = 0; i < readings.length; i++) {
    for (let j = i + 1; j < readings.length; j++) {
      const [a, b] = [readings[i]!, readings[j]!];
      const time = timeOf(b) - timeOf(a);
      if (time <= 0) continue;
      least = Math.max(least, (b.low - a.high) / time);
      most = Math.min(most, (b.high - a.low) / time);
    }
  }
  if (least > most) return null;
  const drift = (least + most) / 2;
  const start = readings[0]!.from;
  const steady = new Steady();
  for (const reading of readings) {
    const grown = drift * (timeOf(reading) - start);
    // slopes that suit each pair need not suit all at once by more than what rounding leaves
    if (!steady.add({ ...reading, low: reading.low - grown - 1, high: reading.high - grown + 1 })) return null;
  }
  return { ahead: steady.line().ahead, drift };
}

/** The account of a stretch; none at all where nearly all of its readings allow the clock to be right. */
function rightOrAs(readings: readonly ClockReading[], line: Line): ClockSpan {
  const allowing = readings.filter(({ low, high }) => low <= 0 && high >= 0);
  if ((line.ahead === 0 && line.drift === 0) || readings.length < MANY || allowing.length < readings.length * NEARLY_ALL)
    return spanOf(readings, line);
  const { from, to } = spanOf(readings, line);
  return { ...spanOf(allowing, { ahead: 0, drift: 0 }), from, to };
}

function spanOf(readings: readonly ClockReading[], { ahead, drift }: Line): ClockSpan {
  const from = readings[0]!.from;
  let [below, above] = [Infinity, Infinity];
  for (const reading of readings) {
    const here = ahead + drift * (timeOf(reading) - from);
    below = Math.min(below, here - reading.low);
    above = Math.min(above, reading.high - here);
  }
  return { from, to: readings[readings.length - 1]!.to, ahead, drift, within: Math.max(1, below, above) };
}

/** Between two spans the earlier one holds until the later begins. */
function joined(spans: ClockSpan[]): void {
  for (let i = 0; i + 1 < spans.length; i++) spans[i]!.to = spans[i + 1]!.from;
}
