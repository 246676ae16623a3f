/** Answers that are dear and asked for in pieces: who comes while one is being worked out waits for it, and large ones stay at hand for a while. */
export class KeptAWhile<T> {
  private readonly known = new Map<string, Promise<T>>();
  /** Of those at hand, how each is forgotten; the oldest first. */
  private readonly kept: (() => void)[] = [];

  /** @param most answers that stay at hand @param forMs how long, in milliseconds @param isLarge whether one is worth it */
  constructor(
    private readonly most: number,
    private readonly forMs: number,
    private readonly isLarge: (answer: T) => boolean,
  ) {}

  /** @param key names the question with all that its answer depends on */
  get(key: string, make: () => Promise<T>): Promise<T> {
    const known = this.known.get(key);
    if (known) return known;
    const asked = make();
    this.known.set(key, asked);
    const forget = (): void => {
      if (this.known.get(key) === asked) this.known.delete(key);
    };
    asked.then((answer) => {
      if (!this.isLarge(answer)) return forget();
      this.kept.push(forget);
      if (this.kept.length > this.most) this.kept.shift()!();
      setTimeout(forget, this.forMs).unref();
    }, forget);
    return asked;
  }
}
