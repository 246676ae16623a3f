import { mkdir, rm } from 'node:fs/promises';
import { join } from 'node:path';
import type { FollowInfo, Page } from '@fadenweg/api';
import { DEMO_ZONE, Works } from '@fadenweg/standin';
import { call } from './client.ts';

/** How often the live system writes, in milliseconds, and about how many records a minute. */
const EVERY = 500;
const PER_MINUTE = 300;
/** Orders of the live system begin here, so that they are none of the demo's. */
const FIRST_ORDER = 500_000;

/** The stand-in system as it goes on producing in real time: its files grow, and the server follows them. */
export class LiveSystem {
  private stopped = false;
  private running: Promise<void> = Promise.resolve();

  /**
   * @param folder for its logs; they begin anew with each start
   * @param told is given what went wrong; the next turn tries again
   */
  constructor(
    private readonly url: string,
    private readonly folder: string,
    private readonly told: (problem: string) => void,
  ) {}

  async start(): Promise<void> {
    const path = join(this.folder, 'logs');
    const { items } = await call<Page<FollowInfo>>(`${this.url}/api/follows`);
    for (const { id } of items.filter((one) => one.path === path)) await call(`${this.url}/api/follows/${id}`, { method: 'DELETE' });
    await rm(this.folder, { recursive: true, force: true });
    await mkdir(path, { recursive: true });
    await call<FollowInfo>(`${this.url}/api/follows`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ path, environment: 'production', zone: DEMO_ZONE, demo: true }),
    });
    this.running = this.run();
  }
  async stop(): Promise<void> {
    this.stopped = true;
    await this.running;
  }

  private async run(): Promise<void> {
    let until = Date.now() * 1000;
    const works = new Works(this.folder, until % 2 ** 31, 0.03, null, until, FIRST_ORDER + (Math.floor(until / 60_000_000) % 400_000));
    try {
      while (!this.stopped) {
        await new Promise((resolve) => setTimeout(resolve, EVERY));
        const now = Date.now() * 1000;
        try {
          works.produce(until, now - until, PER_MINUTE, 1);
          await works.sink.advance(now, 0);
          until = now;
        } catch (error) {
          if (!this.stopped) this.told((error as Error).message);
        }
      }
    } finally {
      await works.sink.end();
    }
  }
}
