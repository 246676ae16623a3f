/** Deterministic random numbers (mulberry32): the same seed gives the same world on every machine. */
export class Random {
  private state: number;
  constructor(seed: number) {
    this.state = seed >>> 0;
  }
  /** A stream of its own for one purpose, so that a change in one flow leaves the others as they were. */
  fork(purpose: string): Random {
    let hash = this.state ^ 0x9e3779b9;
    for (let i = 0; i < purpose.length; i++) hash = Math.imul(hash ^ purpose.charCodeAt(i), 2654435761);
    return new Random(hash ^ (hash >>> 15));
  }
  /** From 0 (included) to 1 (excluded). */
  next(): number {
    this.state = (this.state + 0x6d2b79f5) | 0;
    let t = Math.imul(this.state ^ (this.state >>> 15), 1 | this.state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  }
  chance(probability: number): boolean {
    return this.next() < probability;
  }
  /** Whole number from `from` to `to`, both included. */
  whole(from: number, to: number): number {
    return from + Math.floor(this.next() * (to - from + 1));
  }
  pick<T>(list: readonly T[]): T {
    return list[Math.floor(this.next() * list.length)]!;
  }
  /** Log-normal around a median: how service times spread. */
  around(median: number, spread = 0.35): number {
    const normal = Math.sqrt(-2 * Math.log(1 - this.next())) * Math.cos(2 * Math.PI * this.next());
    return median * Math.exp(spread * normal);
  }
  hex(length: number): string {
    let text = '';
    while (text.length < length)
      text += Math.floor(this.next() * 4294967296)
        .toString(16)
        .padStart(8, '0');
    return text.slice(0, length);
  }
}
