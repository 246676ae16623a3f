import { renameSync, rmSync, symlinkSync } from 'node:fs';
import { get, request, type IncomingMessage } from 'node:http';
import { setTimeout as pause } from 'node:timers/promises';
import type { Machine } from './machine.ts';

/** What really happened to one request at the door. */
export interface Happened {
  tx: string;
  kind: 'loan' | 'state' | 'label';
  /** The loan that it is about: its own, or that of an earlier request. */
  loan: string;
  id: number | null;
  request: string | null;
  fault: Fault | null;
}
export const FAULTS = ['blocked', 'lent', 'sent-twice', 'too-large', 'post-killed', 'disk-full', 'wrong-version', 'locked', 'slow-reader'] as const;
export type Fault = (typeof FAULTS)[number];
/** They hit whoever is under way: nobody else may be. */
const ALONE: readonly Fault[] = ['post-killed', 'disk-full', 'wrong-version'];

interface Answer {
  status: number;
  request: string | null;
  body: { id?: number };
}

/** Sends requests to the door of the lending office, some at once, one in so many with a fault. */
export class Driver {
  readonly happened: Happened[] = [];
  private readonly running = new Set<Promise<void>>();
  private count = 0;
  /** What the first client called its loan. */
  private first: string | null = null;

  constructor(
    private readonly machine: Machine,
    private readonly random: () => number,
  ) {}

  /** @param loans how many @param each one in so many has a fault */
  async run(loans: number, each: number): Promise<void> {
    let faults = 0;
    for (let i = 0; i < loans; i++) {
      const fault = i % each === each - 1 ? FAULTS[faults++ % FAULTS.length]! : null;
      if (fault && ALONE.includes(fault)) await this.alone(fault);
      else this.begin(fault);
      while (this.running.size >= 5) await Promise.race(this.running);
      await pause(20 + this.random() * 90);
    }
    await this.quiet();
    await pause(1500);
  }

  private async quiet(): Promise<void> {
    while (this.running.size > 0) await Promise.all(this.running);
    await pause(250); // what is handed over to the post is done
  }
  private begin(fault: Fault | null): void {
    const done: Promise<void> = this.loan(fault).finally(() => this.running.delete(done));
    this.running.add(done);
  }
  private async alone(fault: Fault): Promise<void> {
    await this.quiet();
    const { labelFile } = this.machine;
    if (fault === 'disk-full') {
      renameSync(labelFile, `${labelFile}.kept`);
      symlinkSync('/dev/full', labelFile);
    } else {
      await this.machine.kill('post');
      if (fault === 'wrong-version') await this.machine.service('post', '2.5.0');
    }
    await this.loan(fault);
    await pause(300);
    if (fault === 'disk-full') {
      rmSync(labelFile);
      renameSync(`${labelFile}.kept`, labelFile);
    } else {
      await this.machine.kill('post');
      await this.machine.service('post');
    }
    await pause(300);
  }

  /** A loan, and what is asked about it later. */
  private async loan(fault: Fault | null): Promise<void> {
    const tx = this.next();
    const pick = (from: number, many: number): number => from + Math.floor(this.random() * many);
    const item = fault === 'lent' ? `I-${pick(900, 10)}` : fault === 'locked' ? 'I-160' : `I-${pick(100, 60)}`;
    const reader = `${fault === 'blocked' ? 'B' : 'R'}${pick(10_000, 80_000)}`;
    const ticket = `T-${fault === 'sent-twice' ? this.first : pick(1e9, 9e9)}`;
    this.first ??= ticket.slice(2);
    const held = fault === 'locked' ? this.holding(item) : null;
    if (held) await held.held;
    const answer = await this.send(tx, { reader, item, ticket, ...(fault === 'too-large' ? { large: 'yes' } : {}) }); // prettier-ignore
    await held?.released;
    const loan: Happened = { tx, kind: 'loan', loan: tx, id: answer.body.id ?? null, request: answer.request, fault: fault === 'slow-reader' ? null : fault }; // prettier-ignore
    this.happened.push(loan);
    if (loan.id === null || fault === 'locked' || (fault && fault !== 'slow-reader')) return;
    if (fault === 'slow-reader' || this.random() < 0.6) {
      await pause(600 + this.random() * 1500);
      await this.later(loan, fault === 'slow-reader' || this.random() < 0.7 ? 'label' : 'state', fault);
    }
  }
  private async later(loan: Happened, kind: 'state' | 'label', fault: Fault | null): Promise<void> {
    const tx = this.next();
    const path = `/loans/${loan.id}${kind === 'label' ? '/label' : ''}`;
    const response = await new Promise<IncomingMessage>((resolve, reject) =>
      get({ host: '127.0.0.1', port: this.machine.ports.door, path, headers: { 'x-tx': tx } }, resolve).on('error', reject),
    );
    if (fault) {
      response.pause();
      await pause(1800 + this.random() * 1500);
    }
    for await (const _ of response);
    this.happened.push({ tx, kind, loan: loan.tx, id: loan.id, request: null, fault });
  }
  /** Somebody else holds an item for a while. */
  private holding(item: string): { held: Promise<unknown>; released: Promise<unknown> } {
    const { aside } = this.machine;
    const held = aside.query('begin').then(() => aside.query(`select free from item where name = '${item}' for update`));
    return { held, released: held.then(() => pause(1400 + this.random() * 2500)).then(() => aside.query('rollback')) };
  }
  private next(): string {
    return `tx-${++this.count}`;
  }
  private send(tx: string, body: object): Promise<Answer> {
    return new Promise((resolve, reject) => {
      const sent = request(
        {
          host: '127.0.0.1',
          port: this.machine.ports.door,
          path: '/loans',
          method: 'POST',
          headers: { 'x-tx': tx, 'content-type': 'application/json' },
        },
        (response) => {
          let text = '';
          response.on('data', (chunk: Buffer) => (text += chunk.toString()));
          response.on('end', () =>
            resolve({
              status: response.statusCode!,
              request: (response.headers['x-request'] as string | undefined) ?? null,
              body: JSON.parse(text) as Answer['body'],
            }),
          );
        },
      );
      sent.on('error', reject);
      sent.end(JSON.stringify(body));
    });
  }
}
