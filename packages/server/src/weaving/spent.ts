/** What weaving does, by name; findings are a part of judging. */
export const WORK = ['tying', 'carrying', 'learning', 'judging', 'findings'] as const;
export type Work = (typeof WORK)[number];

/** How long each kind of work has taken since the start, in milliseconds. */
export class Spent {
  readonly ms: Record<Work, number> = { tying: 0, carrying: 0, learning: 0, judging: 0, findings: 0 };

  /** Does it and counts how long it takes. */
  async on<T>(work: Work, what: () => Promise<T>): Promise<T> {
    const began = performance.now();
    try {
      return await what();
    } finally {
      this.ms[work] += performance.now() - began;
    }
  }
  now<T>(work: Work, what: () => T): T {
    const began = performance.now();
    const result = what();
    this.ms[work] += performance.now() - began;
    return result;
  }
}
