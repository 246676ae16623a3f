import { expect, test } from '@jest/globals';
import type pg from 'pg';
import type { StrandRecord } from '@fadenweg/core/path';
import { Graph } from '@fadenweg/core/stitching';
import { CopyRows } from '../database/copy-rows.ts';
import { Dialogs } from './dialogs.ts';

const SECOND = 1_000_000;
const CALL = 1;
interface Tie {
  a: number;
  b: number;
  how: string;
  sure: number;
}
/** The two tables as far as they are asked for. */
class Tables {
  dialogs: { key: number; begun_at: number; told: string }[] = [];
  ties: Tie[] = [];
  slices = 0;
  // eslint-disable-next-line @typescript-eslint/no-explicit-any
  query = async (sql: string, values: any[] = []): Promise<{ rows: unknown[] }> => {
    if (sql.startsWith('select key')) {
      this.slices++;
      const [from, to, most] = values as [number, number, number];
      const rows = this.dialogs.filter((one) => one.begun_at >= from && one.begun_at <= to).sort((x, y) => x.begun_at - y.begun_at || x.key - y.key);
      return { rows: rows.slice(0, most) };
    }
    if (sql.startsWith('select a, b, how')) return { rows: this.ties.filter(({ a, b }) => values[0].includes(a) && values[0].includes(b)) };
    if (sql.startsWith('select a, b')) return { rows: [...this.ties] };
    if (sql.startsWith('delete'))
      this.ties = this.ties.filter(({ a, b }) => !(values[0] as number[]).some((one, i) => one === a && values[1][i] === b));
    if (sql.startsWith('insert'))
      (values[0] as number[]).forEach((a, i) => this.ties.push({ a, b: values[1][i], how: values[2][i], sure: values[3][i] }));
    return { rows: [] };
  };
  readonly client = this as unknown as pg.Client;
}
const invite = (callId: string, at: number, session: string): StrandRecord =>
  ({ at, component: 'gate', host: '', keys: [Number(/\d+/.exec(callId)![0])], message: `INVITE sip:9@x SIP/2.0\nVia: SIP/2.0/UDP h${callId};branch=z9hG4bK${callId}\nFrom: <sip:${callId}@x>;tag=1\nTo: <sip:9@x>\nCall-ID: ${callId}\nCSeq: 1 INVITE\nSession-ID: ${session};remote=${'0'.repeat(32)}\n\n` }) as unknown as StrandRecord; // prettier-ignore

/** Calls of two dialogs each, one every so many seconds. */
function world(dialogs: Dialogs, tables: Tables, graph: Graph, calls: number, every: number): void {
  for (let i = 0; i < calls; i++) {
    const session = String(i + 1).padStart(32, 'a');
    for (const [side, later] of [
      [0, 0],
      [1, SECOND],
    ] as const) {
      const key = 2 * i + side + 1;
      const at = i * every * SECOND + later;
      graph.see(key, CALL, at, at);
      const record = invite(`${key}`, at, session);
      dialogs.write(new CopyRows(), key, [record], () => true);
      tables.dialogs.push({ key, begun_at: at, told: JSON.stringify({ callId: `${key}`, at, until: at, places: [], sender: '', caller: '', called: '', status: null, ringing: null, talking: null, sessions: [session], names: [] }) }); // prettier-ignore
    }
  }
}
const kinds = new Map([[CALL, { business: true, shared: false, lease: NaN, together: 4 }]]);

test.each([5, 40, 100_000])('whatever is looked at at once (%d), each dialog is tied to its other side', async (most) => {
  const [dialogs, tables, graph] = [new Dialogs(most), new Tables(), new Graph(kinds)];
  world(dialogs, tables, graph, 60, 300);
  const moved = await dialogs.renew(tables.client, graph);
  expect(tables.ties.map(({ a, b }) => [a, b]).sort(([x], [y]) => x! - y!)).toEqual(Array.from({ length: 60 }, (_, i) => [2 * i + 1, 2 * i + 2]));
  expect(new Set(moved).size).toBe(120);
  expect(graph.joined()).toHaveLength(120);
  // nothing was written since
  expect(await dialogs.renew(tables.client, graph)).toEqual([]);
});

test('what no longer belongs together is parted, and what stays is not told again', async () => {
  const [dialogs, tables, graph] = [new Dialogs(), new Tables(), new Graph(kinds)];
  world(dialogs, tables, graph, 3, 60);
  await dialogs.renew(tables.client, graph);
  tables.dialogs[1]!.told = tables.dialogs[1]!.told.replace(/"sessions":\["[^"]*"\]/, '"sessions":[]');
  dialogs.write(new CopyRows(), 2, [invite('2', SECOND, 'b'.repeat(32))], () => true);
  expect(await dialogs.renew(tables.client, graph)).toEqual([1, 2]);
  expect(tables.ties.map(({ a, b }) => [a, b])).toEqual([[3, 4], [5, 6]]); // prettier-ignore
});
