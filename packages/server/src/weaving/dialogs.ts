import type pg from 'pg';
import { dialogsOf, dialogTies, messagesOf, type Dialog, type DialogTie, type KnownDialog } from '@fadenweg/core/calls';
import type { StrandRecord } from '@fadenweg/core/path';
import type { Graph } from '@fadenweg/core/stitching';
import type { CopyRows } from '../database/copy-rows.ts';
import { layout } from '../database/layout.ts';
import { transactionOn } from '../database/transaction.ts';

export const DIALOG = layout({ key: 'big', founder: 'big', begun_at: 'big', told: 'text' });

/** Dialogs that began so long before or after those that were judged are looked at with them, in microseconds. */
const AROUND = 900_000_000;
const NEAR = 60_000_000;
/** So many are looked at at once. */
const MOST = 100_000;
/** Name of the supplied kind of identifiers that calls bear. */
export const CALLS = 'call';
/** So many dialogs may be one call; a link that is named with more tells of none. */
export const MOST_TOGETHER = 4;

/** Which dialogs are of one call: worked out anew around those whose strands were judged. */
export class Dialogs {
  constructor(private readonly most = MOST) {}

  private from = Infinity;
  private to = -Infinity;

  /** Writes a row for each dialog of a strand. @param isCall whether a key is one by which calls are named */
  write(rows: CopyRows, founder: number, records: readonly StrandRecord[], isCall: (key: number) => boolean): void {
    for (const { record, ...dialog } of dialogsOf(messagesOf(records))) {
      const key = records[record]!.keys.find(isCall);
      if (key === undefined) continue;
      this.from = Math.min(this.from, dialog.at);
      this.to = Math.max(this.to, dialog.at);
      DIALOG.write(rows, { key, founder, begun_at: dialog.at, told: JSON.stringify(dialog).replaceAll('\\u0000', '') });
    }
  }

  /** Tells the graph what is kept of it. */
  async load(client: pg.Client, graph: Graph): Promise<void> {
    const { rows } = await client.query<{ a: number; b: number }>('select a, b from dialog_tie order by a, b');
    graph.join(rows.map(({ a, b }) => [a, b]));
  }

  /**
   * Works out what is tied around the dialogs that were written since.
   *
   * @returns keys that are tied otherwise than before; empty where nothing changed
   */
  async renew(client: pg.Client, graph: Graph): Promise<number[]> {
    if (this.from === Infinity) return [];
    const [from, to] = [this.from - AROUND, this.to + AROUND];
    this.from = Infinity;
    this.to = -Infinity;
    const [added, gone]: [DialogTie[], DialogTie[]] = [[], []];
    for (let core = from; core < to;) {
      let slice = await this.slice(client, core - AROUND, to);
      let end = this.endOf(slice, AROUND);
      if (end <= core) {
        // so many at once: with what comes within a minute behind
        slice = await this.slice(client, core, to);
        end = this.endOf(slice, NEAR);
        if (end <= core) end = Math.max(core + 1, this.endOf(slice, 0));
      }
      await this.compare(client, graph, slice, core, end, added, gone);
      core = end;
    }
    if (added.length === 0 && gone.length === 0) return [];
    await write(client, added, gone);
    await this.load(client, graph);
    return [...gone, ...added].flatMap(({ a, b }) => [a, b]);
  }

  /** Until when a slice tells all: near its end it takes what comes behind it to know. */
  private endOf(slice: readonly KnownDialog[], margin: number): number {
    return slice.length < this.most ? Infinity : slice.at(-1)!.at - margin;
  }
  /** Dialogs from a moment on, in order of time, each once. */
  private async slice(client: pg.Client, from: number, to: number): Promise<KnownDialog[]> {
    const { rows } = await client.query<{ key: number; told: string }>(
      'select key, told from dialog where begun_at between $1 and $2 order by begun_at, key limit $3',
      [from, to, this.most],
    );
    return rows.map(({ key, told }): KnownDialog => ({ ...(JSON.parse(told) as Dialog), key }));
  }
  /** Adds what is tied otherwise of the dialogs of a slice that began between two moments. */
  private async compare(
    client: pg.Client,
    graph: Graph,
    slice: readonly KnownDialog[],
    from: number,
    to: number,
    added: DialogTie[],
    gone: DialogTie[],
  ): Promise<void> {
    const byKey = new Map(slice.map((one) => [one.key, one]));
    if (byKey.size < 2) return;
    const isOfIt = ({ a, b }: DialogTie): boolean => {
      const first = Math.min(byKey.get(a)!.at, byKey.get(b)!.at);
      return first >= from && first < to;
    };
    const now = dialogTies([...byKey.values()], graph.together(new Set(byKey.keys()), MOST_TOGETHER)).filter(isOfIt);
    const keys = [...byKey.keys()];
    const before = await client.query<DialogTie>('select a, b, how, sure from dialog_tie where a = any($1) and b = any($1)', [keys]);
    const known = new Map(before.rows.filter(isOfIt).map((one) => [nameOf(one), one]));
    const left = new Set(now.map(nameOf));
    added.push(...now.filter((one) => known.get(nameOf(one))?.how !== one.how));
    gone.push(...[...known.values()].filter((one) => !left.has(nameOf(one))));
  }
}

async function write(client: pg.Client, added: readonly DialogTie[], gone: readonly DialogTie[]): Promise<void> {
  await transactionOn(client, async () => {
    const old = [...gone, ...added];
    await client.query('delete from dialog_tie t using unnest($1::bigint[], $2::bigint[]) o(a, b) where t.a = o.a and t.b = o.b', [old.map(({ a }) => a), old.map(({ b }) => b)]); // prettier-ignore
    await client.query(
      'insert into dialog_tie (a, b, how, sure) select * from unnest($1::bigint[], $2::bigint[], $3::text[], $4::real[]) on conflict (a, b) do update set how = excluded.how, sure = excluded.sure', // prettier-ignore
      [added.map(({ a }) => a), added.map(({ b }) => b), added.map(({ how }) => how), added.map(({ sure }) => sure)],
    );
  });
}
const nameOf = ({ a, b }: { a: number; b: number }): string => `${a} ${b}`;
