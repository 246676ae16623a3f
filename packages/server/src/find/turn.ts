import { setImmediate } from 'node:timers/promises';

/** Longest time for which others are kept waiting, in milliseconds. */
const LONGEST = 12;
/** The clock is read once for so many steps while they are short. */
const STEPS = 16;

/** Work on the thread that serves everybody, in turns: whoever is at it for long lets others in between. */
export class Turn {
  private began: number;
  private steps = 0;
  private every = STEPS;

  /** @param now the clock, in milliseconds */
  constructor(
    private readonly signal?: AbortSignal,
    private readonly now: () => number = () => performance.now(),
  ) {
    this.began = now();
  }

  /** Asked at each step: whether it is time to let others in. */
  isOver(): boolean {
    if (++this.steps < this.every) return false;
    this.steps = 0;
    const took = this.now() - this.began;
    // where a few steps take long already, each of them counts
    this.every = took > LONGEST / 2 ? 1 : STEPS;
    return took > LONGEST;
  }
  /**
   * Lets others in.
   *
   * @throws what the signal was raised with
   */
  async yielded(): Promise<true> {
    await setImmediate();
    this.signal?.throwIfAborted();
    this.began = this.now();
    return true;
  }
}
