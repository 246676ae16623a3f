import { describe, expect, test } from '@jest/globals';
import { excerptOf } from '../path/excerpt.ts';
import { filesIn, namedIn, seriesOf } from './files.ts';
import { tablesIn } from './sql.ts';
import { touchedBy, touchesIn } from './touched.ts';

const tables = (message: string): string[] => tablesIn(message).map(({ way, table }) => `${way} ${table}`).sort(); // prettier-ignore
const files = (message: string): string[] => filesIn(message).map(({ way, file }) => `${way} ${file}`);

describe('tables of statements', () => {
  test.each([
    [
      'duration: 7.1 ms  statement: update stock_blank s set free = w.free from warehouse w where w.blank = s.blank',
      ['reads warehouse', 'writes stock_blank'],
    ],
    [
      'INSERT INTO "Booking"."Night" (id, hut) VALUES (1, \'from nowhere\') ON CONFLICT (id) DO UPDATE SET hut = excluded.hut',
      ['writes booking.night'],
    ],
    [
      'execute S_3: select o.id from orders o join app.customer c on c.id = o.customer where c.name = $1 for update of o',
      ['reads app.customer', 'reads orders'],
    ],
    ['delete from only old_rows using keep k where k.id = old_rows.id', ['reads keep', 'writes old_rows']],
    ['COPY price (id, amount) FROM STDIN WITH (FORMAT csv)', ['writes price']],
    ['copy price to stdout', ['reads price']],
    ['with fresh as (select * from intake), old as (select 1 from fresh) insert into shelf select * from fresh', ['reads intake', 'writes shelf']],
    ['select extract(epoch from taken_at) from reading', ['reads reading']],
    ['select * from generate_series(1, 3) g join lateral unnest(g) u on true', []],
    ['statement: select 1 /* from nothing */ -- from nowhere', []],
    ['received an update from the warehouse', []],
    ['please select one from the list', []],
    ['BEGIN', []],
  ])('%s', (message, expected) => expect(tables(message)).toEqual(expected));
});

describe('files of messages', () => {
  test.each([
    ['run started, input=address-sync_20261124235325_1205.csv size=6547 pid=19142', ['reads address-sync_20261124235325_1205.csv']],
    ['started, file prices.csv', ['names prices.csv']],
    ['started, target invoices.csv', ['writes invoices.csv']],
    ['/data/in/orders-2026-11-24.xml was read, 118 rows', ['reads orders-2026-11-24.xml']],
    ['copied C:\\in\\a.csv to D:\\out\\b.csv', ['names a.csv', 'writes b.csv']],
    ['Datei lager.txt eingelesen, nach bestand.json geschrieben', ['reads lager.txt', 'writes bestand.json']],
    ['uploaded report.pdf to sftp://partner.example/out/report.pdf', ['writes report.pdf']],
    ['version 1.2.in use', []],
    ['at com.example.Loader.read(Loader.csv)', []],
    ['mail to somebody@csv.example.txt', []],
    ['nothing of a file', []],
  ])('%s', (message, expected) => expect(files(message)).toEqual(expected));
  test('dates, times and running numbers tell one file of a series from the next', () => {
    for (const [one, other] of [['prices_20261124.csv', 'prices_20261125.csv'], ['a-2026-11-24_0830.xml', 'a-2026-11-25_0912.xml'], ['in_20261124235325_1205.csv', 'in_20261124235406_1206.csv']]) expect(seriesOf(one!)).toBe(seriesOf(other!)); // prettier-ignore
    expect(seriesOf('prices.csv')).toBe('prices.csv');
    expect(seriesOf('ledger2.csv')).toBe('ledger2.csv');
  });
});

describe('tables and queues that are called so', () => {
  test.each([
    ['wrote 4207 prices to table price', ['writes table price']],
    ['read 61 orders, prices from table app.price.', ['reads table app.price']],
    ['120 Zeilen aus Tabelle "lager" gelesen', ['reads table lager']],
    ['sent to queue orders.in', ['writes feed orders.in']],
    ['could not get a lock on table price', []],
    ['read from table is slow', []],
    ['the table was full', []],
  ])('%s', (message, expected) => expect(namedIn(message).map(({ way, kind, name }) => `${way} ${kind} ${name}`)).toEqual(expected));
});

describe('what a run touched', () => {
  const said = (...messages: string[]) => messages.map((message, shape) => ({ message, shape, failing: message.includes('failed') }));
  test('once each, by the first word of it; a file of which it never says more is read', () => {
    expect(touchedBy(said('started, file prices.csv', 'update price set amount = 1', 'update price failed: update price set amount = 2', 'wrote prices.csv.done'))).toMatchObject([
      { way: 'reads', kind: 'file', name: 'prices.csv', first: 0 },
      { way: 'writes', kind: 'table', name: 'price', first: 1, last: 2, failed: true },
    ]); // prettier-ignore
    expect(touchedBy(said('started, file out_20261124.csv', 'wrote 4 rows to out_20261124.csv'))).toMatchObject([{ way: 'writes', name: 'out_#.csv', instance: 'out_20261124.csv' }]); // prettier-ignore
  });
  test('run events of the open standard', () => {
    const event = { eventType: 'COMPLETE', eventTime: '2026-11-24T08:00:00Z', run: { runId: '0176a8c2-fe01-7439-87e6-56a1a1b4029f' }, job: { namespace: 'works', name: 'stock' }, inputs: [{ namespace: 'file', name: 'Warehouse.csv' }], outputs: [{ namespace: 'postgres://labdb:5432', name: 'public.stock_blank' }, { namespace: 'kafka://here', name: 'stock.changed' }, {}], producer: 'https://works.example' }; // prettier-ignore
    expect(touchesIn(JSON.stringify(event))).toEqual([
      { way: 'reads', kind: 'file', name: 'warehouse.csv', instance: '' },
      { way: 'writes', kind: 'table', name: 'public.stock_blank', instance: '' },
      { way: 'writes', kind: 'feed', name: 'stock.changed', instance: '' },
    ]);
    expect(touchesIn(JSON.stringify(event).slice(0, -3))).toEqual([]);
    expect(touchesIn(JSON.stringify({ ...event, inputs: 'none', outputs: null }))).toEqual([]);
  });
  test('a long event is told by its beginning and its end', () => {
    const facets = {
      columnLineage: { fields: { free: { inputFields: [{ namespace: 'file', name: 'warehouse.csv', field: 'free' }] } } },
      more: 'x'.repeat(3000),
    };
    const event = { eventType: 'COMPLETE', run: { runId: '0176a8c2-fe01-7439-87e6-56a1a1b4029f' }, job: { namespace: 'works', name: 'stock' }, inputs: [{ namespace: 'file', name: 'Warehouse.csv', facets }], outputs: [{ namespace: 'postgres://labdb:5432', name: 'stock_blank', facets: { columnLineage: facets.columnLineage } }] }; // prettier-ignore
    const long = JSON.stringify(event);
    expect(touchesIn(excerptOf(long))).toEqual([
      { way: 'reads', kind: 'file', name: 'warehouse.csv', instance: '' },
      { way: 'writes', kind: 'table', name: 'stock_blank', instance: '' },
    ]);
    expect(touchesIn(long)).toEqual(touchesIn(excerptOf(long)));
  });
  test('any text ends, and names nothing that is not in it', () => {
    for (const text of [
      'select '.repeat(400),
      'from "'.repeat(300),
      `${'a/'.repeat(400)}b.csv`,
      '\u0000'.repeat(50),
      'insert into',
      '{"eventType":1,"runId":',
      `${'x'.repeat(5000)}.csv`,
      'copy (select 1) to program',
    ])
      for (const { name } of touchesIn(text)) expect(text.toLowerCase()).toContain(name.split('#')[0]!.toLowerCase().slice(0, 20));
  });
});
