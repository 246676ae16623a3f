/** Nobody waits longer without being told what for, in milliseconds. */
const LONGEST = 30_000;

/** Says what is waited for when nothing has moved for a while, and again when that changes or lasts. */
export class Patience {
  private state = '';
  private since: number;
  private told = '';

  constructor(
    private readonly say: (words: string) => void,
    private readonly now: () => number = Date.now,
  ) {
    this.since = now();
  }

  /**
   * @param state anything that changes with what moves
   * @param waits what is waited for, in words
   */
  sees(state: string, waits: readonly string[]): void {
    if (state !== this.state) {
      [this.state, this.since, this.told] = [state, this.now(), ''];
      return;
    }
    const words = waits.length === 0 ? 'waiting for the server' : `waiting: ${waits.join('; ')}`;
    if (this.now() - this.since < LONGEST || words === this.told) return;
    this.told = words;
    this.say(words);
  }
}
