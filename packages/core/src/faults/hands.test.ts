import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { headsOf, partedOrigin, partOf, type Together } from './hands.ts';
import { faultOrigin } from './origin.ts';

const fault = fc.integer({ min: 1, max: 12 });

test('faults that were put together have one head, which counts as itself; saying the same once more changes nothing', () => {
  fc.assert(
    fc.property(fc.array(fc.record({ fault, head: fault }), { maxLength: 20 }), (said: Together[]) => {
      const heads = headsOf(said);
      const head = (one: number): number => heads.get(one) ?? one;
      for (const one of said) expect(head(one.fault)).toBe(head(one.head));
      for (const one of heads.values()) expect(heads.has(one)).toBe(false);
      expect(headsOf([...said, ...said])).toEqual(heads);
    }),
  );
});

test('a fault takes in another, and goes into a third with it; taken back, all are as before', () => {
  const said = [{ fault: 1, head: 2 }, { fault: 2, head: 3 }]; // prettier-ignore
  expect([...headsOf(said)]).toEqual([[1, 3], [2, 3]]); // prettier-ignore
  expect([...headsOf(said.slice(0, 1))]).toEqual([[1, 2]]);
});

test('what holds the words is another fault, also of a part; the rest stays', () => {
  const origin = (text: string) => faultOrigin({ message: text, component: 'till', shape: 7, traits: '' });
  const whole = origin('a').key;
  const said = [{ fault: whole, words: 'card', part: partOf(whole, 'card') }, { fault: partOf(whole, 'card'), words: 'gold', part: partOf(partOf(whole, 'card'), 'gold') }]; // prettier-ignore
  const of = (text: string) => partedOrigin(origin(text), text, said);
  expect(of('no cash')).toEqual(origin('no cash'));
  expect(of('no card')).toMatchObject({ key: said[0]!.part, words: 'card' });
  expect(of('no gold card')).toMatchObject({ key: said[1]!.part, words: 'card”, “gold' });
  expect(of('no Card').key).toBe(whole);
  expect(of('no gold').key).toBe(whole);
});
