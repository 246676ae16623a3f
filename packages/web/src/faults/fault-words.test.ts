import { expect, test } from '@jest/globals';
import type { Fault, FaultSaid } from '@fadenweg/api';
import { handWords, hitWords, saidWords, standingWords, whyTogether } from './fault-words.ts';

const thrown = {
  component: 'lens-calc',
  types: ['IllegalStateException', 'PrismOffGridException'],
  calls: ['Rings.shift', 'Rings.turn'],
  said: '',
  traits: '',
  words: '',
};
const said = { component: 'relay', types: [], calls: [], said: 'no blank for ‹›', traits: 'status=503', words: 'till 4' };

test('why records stand together can be read', () => {
  expect(whyTogether(thrown)).toBe(
    'IllegalStateException, because of PrismOffGridException thrown in lens-calc, topmost calls of its own Rings.shift from Rings.turn; line numbers, values and generated names do not count.',
  );
  expect(whyTogether(said)).toBe('All that relay says in these words, whatever stands at ‹›, with status=503. Only what holds “till 4”.');
});

test('what it hit, and what was said of it', () => {
  const fault = { strands: 252, before: 0, follows: 3, unharmed: 0, records: 1 } as Fault;
  expect(hitWords(fault)).toBe('252 failed by it, none in as long before · in 3 it followed from another · 1 record');
  const mended: FaultSaid = {
    state: 'mended',
    owner: 'optics',
    note: '',
    ticket: 'T-7',
    version: '4.12.1',
    since: null,
    until: null,
    who: 'anna',
    at: '2026-11-24T12:00:00Z',
  };
  expect(saidWords(mended)).toBe('2026-11-24 anna: mended in 4.12.1 · by optics · T-7');
  expect(saidWords({ ...mended, state: 'tolerated', until: null, owner: '', ticket: '' })).toBe('2026-11-24 anna: tolerated for good');
});

test('what was done by hand', () => {
  const one = { who: 'ann', at: '2026-11-24T10:00:00Z', words: 'till 4' };
  expect(handWords({ ...one, kind: 'together' })).toMatch(/ann: put together$/);
  expect(handWords({ ...one, kind: 'parted' })).toMatch(/ann: parted what holds “till 4”$/);
  expect(handWords({ ...one, kind: 'part' })).toMatch(/ann: parted it from another, by “till 4”$/);
});

test('who has it in hand, in a line', () => {
  const one = { id: 1, title: 'x', component: 'till', state: 'in-hand' as const, owner: 'optics', note: 'looks at the grid', ticket: 'T-7' };
  expect(standingWords(one)).toBe('in hand by optics, ticket T-7: looks at the grid');
  expect(standingWords({ ...one, state: 'new', owner: '', note: '', ticket: '' })).toBe('new');
});
