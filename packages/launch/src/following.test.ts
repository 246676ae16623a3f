import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { join } from 'node:path';
import { Writable } from 'node:stream';
import { appendFile, readFile, writeFile } from 'node:fs/promises';
import type {
  ExportedStrand,
  Flow,
  LogRecord,
  Page,
  Problem,
  RecordInFull,
  SearchAnswer,
  SourceInfo,
  Strand,
  StrandGroup,
  StrandLine,
  StrandSeries,
  StrandSummary,
  Summary,
  Timeline,
} from '@fadenweg/api';
import type { Truth } from '@fadenweg/standin';
import { call, download, filesBelow } from './client.ts';
import { all, bringMorning, makeMorning, startSystem, type System } from './testing/system.ts';

let system: System;
let logs: string;
let truth: Truth[];
beforeAll(async () => {
  system = await startSystem();
  ({ logs, truth } = await makeMorning(join(system.folder, 'world')));
});
afterAll(() => system?.stop());

const idOf = (one: Truth): string => `${one.identifiers[0]!.kind}:${one.businessId}`;
const strand = (id: string): Promise<Strand> => system.get<Strand>(`/strands/${encodeURIComponent(id)}`);
const allStrands = (): Promise<StrandSummary[]> => all<StrandSummary>(system, '/strands?sort=started');
const search = (text: string): Promise<SearchAnswer> => system.get<SearchAnswer>(`/search?text=${encodeURIComponent(text)}`);

describe('following the lens works’ morning', () => {
  test('everything is read and understood', async () => {
    const info = await bringMorning(system, logs);
    expect(info).toMatchObject({ state: 'done', keptWhole: 0, errors: [], files: 19 });
    expect(info.records).toBeGreaterThan(10_000);
  });

  test('the export says for each strand where its records stand, as the truth knows it', async () => {
    const lines: string[] = [];
    const gather = new Writable({
      write(chunk: Buffer, _encoding, done) {
        lines.push(chunk.toString());
        done();
      },
    });
    await download(`${system.url}/api/strands/export?records=true&flow=lens-order`, gather);
    const strands = lines.join('').trim().split('\n').map((line) => JSON.parse(line) as ExportedStrand); // prettier-ignore
    const orders = truth.filter((one) => one.flow === 'lens-order');
    expect(strands).toHaveLength(orders.length);
    const places = (list: readonly { source: string; line: number }[]): string[] => list.map(({ source, line }) => `${source}:${line}`).sort();
    const byId = new Map(strands.map((one) => [one.businessId, one]));
    const missed = orders.flatMap((one) => {
      const found = new Set(places(byId.get(one.businessId)?.recordsAt ?? []));
      return places(one.records).filter((place) => !found.has(place));
    });
    // what names its order, its trace or its messages is there; of what a thread says without naming anything, nearly all
    const files = new Map<string, string[]>();
    for (const { path } of await filesBelow([logs])) files.set(path, (await readFile(join(logs, path), 'utf8')).split('\n'));
    const line = (place: string): string => files.get(place.slice(0, place.lastIndexOf(':')))![Number(place.slice(place.lastIndexOf(':') + 1)) - 1]!;
    expect(missed.map(line).filter((text) => !/o\.b\.Pricing|grid refined/.test(text))).toEqual([]);
    expect(missed.length).toBeLessThan(orders.flatMap((one) => one.records).length / 1000);
  });

  test('each strand that really happened is there once, with the outcome that it had', async () => {
    const strands = new Map((await allStrands()).map((one) => [one.id, one]));
    const legs = new Map((await system.get<Page<Flow>>('/flows')).items.map((flow) => [flow.name, flow.legs]));
    // of a flow with a handful of strands nobody can say what is usual; what is declared holds all the same
    const rightOf = ({ outcome, alsoRight, flow, businessId }: Truth): string[] => {
      const bySight = ['slow', 'odd'].includes(outcome) && businessId !== 'PL-0423';
      return [...(bySight && legs.get(flow) === 0 ? ['done'] : [outcome]), ...(alsoRight ?? [])];
    };
    const wrong = truth
      .filter((one) => !rightOf(one).includes(strands.get(idOf(one))?.outcome ?? ''))
      .map((one) => `${one.businessId} ${one.outcome} ${one.story} ${strands.get(idOf(one))?.outcome}`);
    expect(wrong).toEqual([]);
    expect(legs.get('lens-order')).toBeGreaterThan(100);
    expect(truth.filter((one) => one.outcome === 'slow' && strands.get(idOf(one))?.outcome === 'slow').length).toBeGreaterThan(0);
    expect(strands.size).toBe(truth.length);
  });

  test('a strand holds just its own records', async () => {
    for (const one of truth.filter((_, index) => index % 9 === 0)) {
      const lines = await all<StrandLine>(system, `/strands/${encodeURIComponent(idOf(one))}/records`);
      const places = (list: { source: string; line: number }[]): string[] => list.map((place) => `${place.source}:${place.line}`).sort();
      expect(places(lines.map((line) => ({ source: line.source.path, line: line.source.line })))).toEqual(places(one.records));
    }
  });

  test('the first finding of each failed or refused strand names the record and the components of the truth', async () => {
    // of the invoice exports there are too few to know what is usual
    const faulty = truth.filter(
      (one) => one.cause?.record && ['failed', 'refused', 'odd', 'doubled', 'slow'].includes(one.outcome) && !/^(IE|SS)-/.test(one.businessId),
    );
    expect(new Set(faulty.map((one) => one.story))).toEqual(new Set([null, 1, 2, 7, 8, 10]));
    for (const one of faulty) {
      const { findings } = await strand(idOf(one));
      const { record, component, failedIn, accepted } = one.cause!;
      const [first] = findings;
      if (first && accepted.includes(first.component)) {
        // as right an answer: what that component says itself of this strand
        expect(one.records).toContainEqual({ source: first.record.source, line: first.record.line });
        expect(first.record.source).toMatch(new RegExp(`^${first.component}/`));
        expect(first.failedIn).toBe(failedIn);
        continue;
      }
      expect({
        id: one.businessId,
        source: first?.record.source,
        line: first?.record.line,
        component: first?.component,
        failedIn: first?.failedIn,
      }).toEqual({ id: one.businessId, ...record, component, failedIn });
    }
  });

  test('a silence names who should have spoken next, and where it stopped', async () => {
    const lost = truth.filter((one) => one.outcome === 'stalled' && one.cause?.failedIn === 'relay');
    expect(lost.length).toBeGreaterThan(0);
    for (const one of lost) {
      const { findings } = await strand(idOf(one));
      expect(findings[0]).toMatchObject({ kind: 'stopped-before', failedIn: 'relay', missingNext: 'relay', record: one.cause!.record });
      const alike = truth.filter((other) => other.outcome === 'stalled' && other.cause?.failedIn === 'relay' && other.story === one.story);
      expect(Date.parse(findings[0]!.similar!.since) * 1000).toBeLessThanOrEqual(Math.min(...alike.map((other) => other.startedAt)) + 1000);
      expect(findings[0]!.sentence).toMatch(/Usually relay says “.+” \d+ ms later \(\d+ of \d+ good ones\)/);
    }
  });

  test('a strand’s shares of time add up to the whole, and its identifiers carry their chain', async () => {
    const one = await strand(idOf(truth.find((candidate) => candidate.story === 1 && candidate.flow === 'lens-order')!));
    expect(one.time.reduce((sum, share) => sum + share.ms, 0)).toBeCloseTo(one.durationMs, 3);
    expect(one.time[0]).toMatchObject({ component: 'labdb', kind: 'lock-wait' });
    const session = one.identifiers.find((identifier) => identifier.kind === 'db-session')!;
    expect([session.validFrom, session.validTo]).toEqual([expect.stringMatching(/^2026-11-24T/), expect.stringMatching(/^2026-11-24T/)]);
    expect(session.because[0]).toMatchObject({ from: 'order', fromValue: one.businessId });
    expect(one.identifiers.map((identifier) => identifier.kind)).toEqual(expect.arrayContaining(['order', 'trace', 'message', 'db-session', 'shop']));
    expect(one.hops.some((hop) => hop.by.startsWith('message m-'))).toBe(true);
  });

  test('an order number, a whole log line, a phone number in any notation and a run number lead to their strands', async () => {
    const order = truth.find((one) => one.flow === 'lens-order')!;
    expect((await search(` ${order.businessId} `)).only).toBe(idOf(order));
    const [line] = (await readFile(join(logs, 'order-desk/order-desk.log'), 'utf8')).split('\n').filter((text) => text.includes(order.businessId));
    expect((await search(line!)).only).toBe(idOf(order));
    const phoned = truth.find((one) => one.flow === 'status-call')!;
    const digits = phoned.attributes.caller!.slice(3);
    for (const notation of [`0${digits.slice(0, 2)} ${digits.slice(2, 7)} ${digits.slice(7)}`, `0049 ${digits}`, `+49 (0)${digits}`]) {
      const answer = await search(notation);
      expect(answer.hits.flatMap((hit) => hit.strands.map((one) => one.id))).toContain(idOf(phoned));
    }
    expect((await search('PL-0423')).only).toBe('run:PL-0423');
    expect(await search('LX-999999')).toMatchObject({ hits: [], only: null, looked: [{ kind: 'order', value: 'LX-999999' }] });
  });

  test('a call that asked for an order is related to it', async () => {
    const call = truth.find((one) => one.flow === 'status-call' && one.outcome === 'done')!;
    const { related } = await strand(idOf(call));
    for (const other of related) expect((await strand(other.strand)).related.map((one) => one.strand)).toContain(idOf(call));
  });

  test('lists filter, sort and page by key', async () => {
    const failed = await all<StrandSummary>(system, '/strands?flow=lens-order&outcome=failed,refused&sort=-duration');
    expect(failed.length).toBe(truth.filter((one) => one.flow === 'lens-order' && ['failed', 'refused'].includes(one.outcome)).length);
    expect(failed.map((one) => one.durationMs)).toEqual(failed.map((one) => one.durationMs).sort((a, b) => b - a));
    const first = await system.get<Page<StrandSummary>>('/strands?limit=3&sort=started');
    const second = await system.get<Page<StrandSummary>>(`/strands?limit=3&sort=started&after=${first.next}`);
    expect(new Set([...first.items, ...second.items].map((one) => one.id)).size).toBe(6);
    const caller = truth.find((one) => one.flow === 'status-call')!.attributes.caller!;
    const calls = await all<StrandSummary>(system, `/strands?identifier=${encodeURIComponent(caller)}`);
    expect(calls.map((one) => one.id).sort()).toEqual(
      truth
        .filter((one) => one.attributes.caller === caller)
        .map(idOf)
        .sort(),
    );
  });

  test('strands are narrowed to those that pass through a component, and to those that took so long', async () => {
    const through = (one: Truth, component: string): boolean => one.records.some((record) => record.source.startsWith(`${component}/`));
    for (const component of ['coating-cell', 'switch', 'lens-calc', 'order-desk', 'nowhere']) {
      const { items } = await system.get<Page<StrandSummary>>(`/strands?limit=500&component=${component}`);
      expect(items.map((one) => one.businessId).sort()).toEqual(truth.filter((one) => through(one, component)).map((one) => one.businessId).sort()); // prettier-ignore
    }
    const all = (await system.get<Page<StrandSummary>>('/strands?limit=500')).items;
    const long = (await system.get<Page<StrandSummary>>('/strands?limit=500&minMs=8000&maxMs=60000')).items;
    expect(long.length).toBeGreaterThan(0);
    expect(long).toEqual(all.filter((one) => one.durationMs >= 8000 && one.durationMs <= 60_000));
  });

  test('the times of a strand stand beside those of its party and of everybody in its flow', async () => {
    const failed = truth.find((one) => one.story === 1 && one.flow === 'lens-order')!;
    const strand = await system.get<Strand>(`/strands/${idOf(failed)}`);
    const series = await system.get<StrandSeries>(`/strands/${idOf(failed)}/series`);
    const inDatabase = strand.time.filter((one) => one.component === 'labdb' && one.kind !== 'waiting').reduce((sum, one) => sum + one.ms, 0);
    expect(series.own.wholeMs).toBeCloseTo(strand.durationMs, 3);
    expect(series.own.databaseMs).toBeCloseTo(inDatabase, 3);
    expect(inDatabase).toBeGreaterThan(8000);
    const orders = (await system.get<Page<StrandSummary>>('/strands?flow=lens-order&limit=500')).items;
    expect(series.everybody.reduce((sum, one) => sum + one.strands, 0)).toBe(orders.length);
    const shop = failed.attributes.shop;
    expect(series.party).toMatchObject({ kind: 'shop', value: shop });
    const ofShop = orders.filter((one) => one.parties.some((party) => party.value === shop));
    expect(series.party!.points.reduce((sum, one) => sum + one.strands, 0)).toBe(ofShop.length);
    for (const one of series.everybody) expect(one.slowMs).toBeGreaterThanOrEqual(one.wholeMs);
  });

  test('an identifier that was used again leads to the choice among its strands', async () => {
    const failed = truth.find((one) => one.story === 1 && one.flow === 'lens-order')!;
    const strand = await system.get<Strand>(`/strands/${idOf(failed)}`);
    const session = strand.identifiers.find((one) => one.kind === 'db-session')!;
    expect(session.validTo).not.toBeNull();
    const response = await fetch(`${system.url}/api/strands/${encodeURIComponent(`db-session:${session.value}`)}`);
    expect(response.status).toBe(300);
    const { choices } = (await response.json()) as Problem;
    expect(choices!.map((one) => one.id)).toContain(strand.id);
    expect(choices!.length).toBeGreaterThan(1);
  });

  test('strands are grouped by flow, by party and by where they gave up', async () => {
    const groups = async (by: string): Promise<StrandGroup[]> => (await system.get<Page<StrandGroup>>(`/strands/groups?by=${by}`)).items;
    const flows = await groups('flow');
    for (const flow of ['lens-order', 'status-call']) {
      const own = truth.filter((one) => one.flow === flow);
      const group = flows.find((one) => one.key === flow)!;
      expect(group.strands).toBe(own.length);
      expect(group.outcomes.failed ?? 0).toBe(own.filter((one) => one.outcome === 'failed').length);
    }
    const shop = truth.find((one) => one.flow === 'lens-order')!.attributes.shop!;
    expect((await groups('party')).find((one) => one.kind === 'shop' && one.key === shop)!.strands).toBe(
      truth.filter((one) => one.attributes.shop === shop && one.records.some(({ source }) => /^(edge|shop-portal)\//.test(source))).length,
    );
    const [worst] = await groups('failed-in');
    const narrowed = await system.get<Page<StrandSummary>>(`/strands?failedIn=${worst!.key}&limit=500`);
    expect(narrowed.items).toHaveLength(worst!.strands);
    expect(narrowed.items.every((one) => one.failedIn === worst!.key)).toBe(true);
  });

  test('a record opens in full, with its original bytes, its place and its neighbours', async () => {
    const failed = truth.find((one) => one.story === 1 && one.flow === 'lens-order')!;
    const found = (await all<StrandLine>(system, `/strands/${encodeURIComponent(idOf(failed))}/records`)).find((line) =>
      line.message.includes('\n\tat '),
    )!;
    const record = await system.get<RecordInFull>(`/records/${found.id}`);
    const file = await readFile(join(logs, record.source.path));
    expect(record.raw).toBe(file.subarray(record.source.byteFrom, record.source.byteTo).toString());
    expect(record.raw.split('\n').length).toBeGreaterThan(8);
    expect(record.originalAt).toMatch(/^2026-11-24 \d\d:\d\d:\d\d,\d{3}$/);
    const { items } = await system.get<Page<LogRecord>>(`/records/${found.id}/around?scope=source&before=3&after=3`);
    expect(items.map((one) => one.source.byteFrom)).toEqual([...items].map((one) => one.source.byteFrom).sort((a, b) => a - b));
    expect(items[3]!.id).toBe(found.id);
    expect(items[4]!.source.byteFrom).toBe(record.source.byteTo);
  });

  test('the timeline counts what the list holds', async () => {
    const summary = await system.get<Summary>('/summary');
    const timeline = await system.get<Timeline>(`/records/timeline?from=${summary.from}&to=${summary.to}&slots=60`);
    expect(timeline.slots.flatMap((slot) => Object.values(slot.counts)).reduce((sum, count) => sum + count, 0)).toBe(summary.records);
  });

  test('the same again adds nothing, under any name', async () => {
    const before = await system.get<Summary>('/summary');
    const again = (await filesBelow([logs])).map((file, index) => (index === 0 ? { ...file, path: 'other/name.log' } : file));
    expect(await system.bring(again)).toMatchObject({ records: 0, alreadyThere: again.length });
    expect(await system.get<Summary>('/summary')).toMatchObject({ records: before.records, strands: before.strands });
  });

  test('files in another order, one by one and several at once, across a restart, give the same strands', async () => {
    const key = (one: StrandSummary): string =>
      JSON.stringify([one.id, one.outcome, one.startedAt, one.durationMs, one.records, one.headline, one.parties.map((party) => party.value).sort()]);
    const before = (await allStrands()).map(key).sort();
    const [{ importId }] = (await system.get<Page<SourceInfo>>('/sources')).items as [SourceInfo];
    await call(`${system.url}/api/imports/${importId}`, { method: 'DELETE' });
    expect(await system.get<Summary>('/summary')).toMatchObject({ records: 0, strands: 0, sources: 0 });
    const files = (await filesBelow([logs])).reverse();
    // one by one, then several at once
    const groups = [...files.slice(0, 4).map((file) => [file]), files.slice(4, 9), files.slice(9)];
    for (const [index, group] of groups.entries()) {
      await system.bring(group);
      if (index === 4) await system.restart();
    }
    expect((await allStrands()).map(key).sort()).toEqual(before);
  });

  test('a file that has grown goes on where it ended', async () => {
    const grown = join(system.folder, 'grown.log');
    await writeFile(grown, '2026-11-24 12:00:00,000 INFO  [exec-1] o.b.X - first of LX-777001\n');
    const send = { file: grown, path: 'order-desk/grown.log', modified: Date.now() };
    expect(await system.bring([{ ...send, size: (await readFile(grown)).length }])).toMatchObject({ records: 1 });
    await appendFile(grown, '2026-11-24 12:00:01,000 ERROR [exec-1] o.b.X - second of LX-777001\n\tat a stack\n');
    await system.bring([{ ...send, size: (await readFile(grown)).length }]);
    const [source] = (await system.get<Page<SourceInfo>>('/sources')).items.filter((one) => one.path === send.path);
    expect(source).toMatchObject({ records: 2, understood: 2, state: 'done' });
    expect(await strand('order:LX-777001')).toMatchObject({ records: 2, outcome: 'failed' });
  });

  test('another zone moves a source’s records, read again from the kept bytes', async () => {
    const [source] = (await system.get<Page<SourceInfo>>('/sources')).items.filter((one) => one.path === 'order-desk/grown.log');
    expect(source!.from).toBe('2026-11-24T11:00:00.000000Z');
    await call(`${system.url}/api/sources/${source!.id}`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ zone: 'America/New_York' }),
    });
    let now: SourceInfo;
    do now = await system.get<SourceInfo>(`/sources/${source!.id}`);
    while (now.state !== 'done');
    expect(now).toMatchObject({ from: '2026-11-24T17:00:00.000000Z', records: 2, zone: 'America/New_York' });
  });
});
