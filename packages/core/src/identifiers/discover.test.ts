import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { discoverLinks } from './discover.ts';
import type { SuggestRecord } from './suggest.ts';

const code = (seed: number): string => (((seed + 7) * 2654435761) >>> 0).toString(36).padStart(7, 'a').slice(-7); // prettier-ignore
const ask = (i: number): string => `rq-${i % 10}${code(i)}`;
const order = (i: number) => ({ value: `LX-${200_000 + i}`, role: 'business' as const, kind: 0 });
const record = (text: string, fields: SuggestRecord['fields'] = {}, known: SuggestRecord['known'] = []): SuggestRecord => ({ component: 'a', text, fields, known }); // prettier-ignore

/** Requests: each is named beside its order, and alone. */
const requests = (count: number): SuggestRecord[] =>
  Array.from({ length: count }, (_, i) => [
    record(`${ask(i)} taken up`),
    record(`${ask(i)} for LX-${200_000 + i}`, {}, [order(i)]),
    record('answered', { req: ask(i), ms: 12 }),
  ]).flat();

describe('links that nobody declared', () => {
  test('stand beside one order each and bring in records that name nothing else', () => {
    const [found, ...more] = discoverLinks(requests(40));
    expect(more).toEqual([]);
    expect(found).toMatchObject({ patterns: ['rq-\\w{8}'], fields: [], values: 40, single: 1, free: 40, recordsPerValue: 3 });
    for (let i = 0; i < 40; i++) expect(ask(i)).toMatch(new RegExp(`^${found!.patterns[0]!}$`));
  });
  test('by the name of their field, where their look is not their own', () => {
    const references = Array.from({ length: 40 }, (_, i) => [record('asked', { ref: `7x${code(i)}` }, [order(i)]), record('approved', { ref: `7x${code(i)}` })]).flat(); // prettier-ignore
    expect(discoverLinks(references)).toMatchObject([{ patterns: [], fields: ['ref'], free: 40 }]);
  });
  test('written where other logs tell their thread', () => {
    const entry = (i: number): string => `L-${code(i)}`;
    const entries = Array.from({ length: 40 }, (_, i) => [
      record(`hands ${entry(i)} over`, {}, [order(i)]),
      record('balanced', { thread: entry(i) }),
    ]).flat();
    expect(discoverLinks(entries)).toMatchObject([{ patterns: ['L-\\w{7}'], fields: [] }]);
    const threads = Array.from({ length: 200 }, (_, i) => [record('x', { thread: `exec-1${i % 30}` }, [order(i)]), record('y', { thread: `exec-1${i % 30}` })]).flat(); // prettier-ignore
    expect(discoverLinks(threads)).toEqual([]);
  });
  test('beside a link that is known tie too: it is looked again', () => {
    const linked = Array.from({ length: 40 }, (_, i) => [record('asked', { ref: `PX-${code(i)}1` }, [{ value: ask(i), role: 'link', kind: 1 }]), record('approved', { ref: `PX-${code(i)}1` })]).flat(); // prettier-ignore
    expect(discoverLinks(linked)).toMatchObject([{ label: 'ref', free: 40, single: 1 }]);
  });
  test('what people may ask by is left to them while no such number is known; later it is looked again', () => {
    const uuid = (i: number) => ({ value: `uuid-${code(i)}`, role: 'link' as const, kind: 1 });
    const booked = (more: SuggestRecord['known'] = []): SuggestRecord[] =>
      Array.from({ length: 40 }, (_, i) => [
        { ...record(`booking PB-${300_000 + i} taken`, {}, [uuid(i)]), component: 'desk' },
        { ...record('delivered', { booking: `PB-${300_000 + i}`, id: `m-${code(i)}` }), component: 'relay' },
        ...(i === 0 ? [record('another', {}, more)] : []),
      ]).flat();
    expect(discoverLinks(booked())).toEqual([]);
    expect(discoverLinks(booked([order(1)])).map((one) => one.patterns)).toEqual([['PB-\\d{6}']]);
    // what a single component writes is nothing to ask by
    expect(discoverLinks(booked().map((one) => ({ ...one, component: 'desk' }))).map((one) => one.patterns)).toEqual([['PB-\\d{6}']]);
  });

  test('in hexadecimal without letters in front, in numbers behind a field’s name, with dots and behind words', () => {
    const hex = (i: number): string => (((i + 11) * 2654435761) >>> 0).toString(16).padStart(8, '0') + 'ab1c';
    const plain = Array.from({ length: 40 }, (_, i) => [record(`got ${hex(i)}`, {}, [order(i)]), record(`${hex(i)} is through`)]).flat();
    expect(discoverLinks(plain)).toMatchObject([{ patterns: ['[0-9a-f]{12}'], free: 40 }]);
    const dotted = Array.from({ length: 40 }, (_, i) => [record('x', { ref: `${1000 + i}.${hex(i)}` }, [order(i)]), record('y', { about: `${1000 + i}.${hex(i)}` })]).flat(); // prettier-ignore
    expect(discoverLinks(dotted).map((one) => one.patterns)).toEqual([['\\d{4,6}\\.[0-9a-f]{12}']]);
    const counted = Array.from({ length: 40 }, (_, i) => [record('x', { tan: 70_000 + i }, [order(i)]), record('y', { tan: 70_000 + i })]).flat();
    expect(discoverLinks(counted)).toMatchObject([{ patterns: [], fields: ['tan'], single: 1 }]);
    const worded = Array.from({ length: 40 }, (_, i) => [record(`asked (ticket ${70_000 + i})`, {}, [order(i)]), record(`answered (ticket ${70_000 + i})`)]).flat(); // prettier-ignore
    expect(discoverLinks(worded).map((one) => one.patterns)).toEqual([['ticket[ :=#]{1,2}(\\d{5,7})']]);
  });
  test('beside an order and its shipment: they are counted by kind, and what joins two parts is found though it brings nothing in', () => {
    const shipment = (i: number) => ({ value: `SH${500_000 + i}`, role: 'business' as const, kind: 2 });
    const link = (i: number): string => `v-${code(i)}`;
    const both = Array.from({ length: 40 }, (_, i) => [
      record(`made ${link(i)}`, {}, [order(i)]),
      record(`sent ${link(i)}`, {}, [shipment(i)]),
    ]).flat();
    expect(discoverLinks(both)).toMatchObject([{ patterns: ['v-\\w{7}'], single: 1, free: 0 }]);
    // of two orders it is none
    const two = Array.from({ length: 40 }, (_, i) => [
      record(`made ${link(i)}`, {}, [order(i)]),
      record(`sent ${link(i)}`, {}, [order(i + 100)]),
    ]).flat();
    expect(discoverLinks(two)).toEqual([]);
  });

  test.each<[string, SuggestRecord[]]>([
    ['used again by many', Array.from({ length: 200 }, (_, i) => [record('x', { lock: `lock-${i % 25}a` }, [order(i)]), record('y', { lock: `lock-${i % 25}a` })]).flat()], // prettier-ignore
    ['that bring nothing in', Array.from({ length: 60 }, (_, i) => [record('x', { parcel: `PX-${i}77a` }, [order(i)]), record('y', { parcel: `PX-${i}77a` }, [order(i)])]).flat()], // prettier-ignore
    ['that never stand beside anything', Array.from({ length: 60 }, (_, i) => [record('x', { page: `pg-${i}77a` }), record('y', { page: `pg-${i}77a` })]).flat()], // prettier-ignore
    ['short numbers', Array.from({ length: 60 }, (_, i) => [record('x', { tan: 1000 + i }, [order(i)]), record('y', { tan: 1000 + i })]).flat()], // prettier-ignore
    ['measures', Array.from({ length: 200 }, (_, i) => [record('x', { sum: 70_000 + (i % 40) }, [order(i)]), record('y', { sum: 70_000 + (i % 40) })]).flat()], // prettier-ignore
    ['pieces of what is known', Array.from({ length: 60 }, (_, i) => [record('x', { no: `X-${200_000 + i}` }, [order(i)]), record('y', { no: `X-${200_000 + i}` }, [order(i)])]).flat()], // prettier-ignore
    ['too few', requests(8)],
  ])('are none: %s', (_why, records) => expect(discoverLinks(records)).toEqual([]));

  test('do not depend on the order of the records, but for the examples', () => {
    const all = requests(30);
    fc.assert(
      fc.property(fc.shuffledSubarray(all, { minLength: all.length, maxLength: all.length }), (shuffled) => {
        const figures = ({ patterns, values, single, free }: ReturnType<typeof discoverLinks>[number]) => ({ patterns, values, single, free });
        expect(discoverLinks(shuffled).map(figures)).toEqual(discoverLinks(all).map(figures));
      }),
      { numRuns: 20 },
    );
  });
});
