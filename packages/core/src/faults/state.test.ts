import { expect, test } from '@jest/globals';
import { faultState, type FaultSaid } from './state.ts';

const said = (more: Partial<FaultSaid>): FaultSaid => ({ state: 'mended', since: null, version: '', until: null, ...more });
const at = (time: number, host = 'h1') => [{ at: time, host }];
const spans = [
  { version: '1.0', host: 'h1', from: -Infinity, to: 100 },
  { version: '1.1', host: 'h1', from: 100, to: 200 },
  { version: '1.2', host: 'h1', from: 200, to: Infinity },
  { version: '1.0', host: 'h2', from: -Infinity, to: Infinity },
];

test('nothing said, in hand, tolerated until a day', () => {
  expect(faultState(null, at(5), [], 10)).toBe('new');
  expect(faultState(said({ state: 'in-hand' }), at(5), [], 10)).toBe('in-hand');
  expect(faultState(said({ state: 'tolerated', until: 20 }), at(5), [], 10)).toBe('tolerated');
  expect(faultState(said({ state: 'tolerated', until: 20 }), at(5), [], 20)).toBe('new');
});

test('mended since an instant: what occurs after it is a return', () => {
  expect(faultState(said({ since: 50 }), [...at(10), ...at(49)], spans, 0)).toBe('mended');
  expect(faultState(said({ since: 50 }), [...at(10), ...at(51)], spans, 0)).toBe('returned');
});

test('mended in a version: an instance of an older one that goes on is no return', () => {
  const mended = said({ version: '1.1' });
  expect(faultState(mended, [...at(90), ...at(300, 'h2')], spans, 0)).toBe('mended');
  expect(faultState(mended, at(150), spans, 0)).toBe('returned');
  // a later version has what the earlier had
  expect(faultState(mended, at(250), spans, 0)).toBe('returned');
});

test('a version that never ran brings nothing back; going back to an older one does not either', () => {
  expect(faultState(said({ version: '9' }), at(500), spans, 0)).toBe('mended');
  const back = [...spans.slice(0, 2), { version: '1.0', host: 'h1', from: 200, to: Infinity }];
  expect(faultState(said({ version: '1.1' }), at(250), back, 0)).toBe('mended');
});
