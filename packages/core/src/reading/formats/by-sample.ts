import type { Sample } from '../types.ts';

/** What is learned from a sample, kept with it: guessing, describing and reading ask for the same again and again. */
export class BySample<Learned> {
  private readonly known = new WeakMap<Sample, Map<string, Learned>>();

  /** @param isDated what was learned rests on when the source was written too, and is learned anew for another such moment */
  constructor(private readonly isDated: (learned: Learned) => boolean) {}

  of(sample: Sample, order: string, modified: number, learn: () => Learned): Learned {
    let own = this.known.get(sample);
    if (!own) this.known.set(sample, (own = new Map()));
    const dated = `${order} ${modified}`;
    for (const key of [order, dated]) if (own.has(key)) return own.get(key)!;
    const learned = learn();
    own.set(this.isDated(learned) ? dated : order, learned);
    return learned;
  }
}
