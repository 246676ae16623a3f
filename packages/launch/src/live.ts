import { mkdir, mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { DEMO_ZONE, Works } from '@fadenweg/standin';
import { filesBelow, sendFiles, waitForImport } from './client.ts';

/** How often the live system's new lines are brought in, in milliseconds, and about how many records a minute it writes. */
const EVERY = 8000;
const PER_MINUTE = 300;
/** Orders of the live system begin here, so that they are none of the demo's. */
const FIRST_ORDER = 500_000;

/** The stand-in system as it goes on producing in real time: its files grow, and each time what is new in them is brought in. */
export class LiveSystem {
  private stopped = false;
  private running: Promise<void> = Promise.resolve();

  /** @param told is given what went wrong; the next turn tries again */
  constructor(
    private readonly url: string,
    private readonly told: (problem: string) => void,
  ) {}

  start(): void {
    this.running = this.run();
  }
  async stop(): Promise<void> {
    this.stopped = true;
    await this.running;
  }

  private async run(): Promise<void> {
    const folder = await mkdtemp(join(tmpdir(), 'fadenweg-live-'));
    await mkdir(join(folder, 'logs'));
    let until = Date.now() * 1000;
    const works = new Works(folder, until % 2 ** 31, 0.03, null, until, FIRST_ORDER + (Math.floor(until / 60_000_000) % 400_000));
    try {
      while (!this.stopped) {
        for (let waited = 0; waited < EVERY && !this.stopped; waited += 100) await new Promise((resolve) => setTimeout(resolve, 100));
        const now = Date.now() * 1000;
        works.produce(until, now - until, PER_MINUTE, 1);
        await works.sink.advance(now, 0);
        until = now;
        try {
          const files = (await filesBelow([join(folder, 'logs')]))
            .filter((file) => file.size > 0)
            .map((file) => ({ ...file, path: file.path.replace('/', '/live-') }));
          if (files.length === 0) continue;
          const started = await sendFiles(this.url, files, { environment: 'production', zone: DEMO_ZONE, demo: 'true' });
          await waitForImport(this.url, started.id, () => {});
        } catch (error) {
          if (!this.stopped) this.told((error as Error).message);
        }
      }
    } finally {
      await works.sink.end();
      await rm(folder, { recursive: true, force: true });
    }
  }
}
