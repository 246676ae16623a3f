import { Refusal } from '../platform/http/problems.ts';

/** Who watches at one time. */
const MOST = 60;

/** Those who are fed: each holds a connection. */
export class Watchers {
  private count = 0;

  async feed(feeding: () => Promise<void>): Promise<void> {
    this.count++;
    try {
      await feeding();
    } finally {
      this.count--;
    }
  }
  /** @throws Refusal where too many are fed already */
  refuseTooMany(): void {
    if (this.count >= MOST) throw new Refusal(503, 'Too many watch', `${MOST} pages are being fed already.`, 'Close some of them, and try again.');
  }
}
