import { describe, expect, it } from '@jest/globals';
import { tellsTheSame, type Beside } from './same-events.ts';
import { APART, COPIES, drawnTellers, type Story } from './testing/drawn-tellers.ts';
import type { Told } from './types.ts';

const SEEDS = 60;
/** Whether the one is told by the other, where need be the other by the one too. */
function mutually({ of, among }: Beside): boolean {
  const told = tellsTheSame([{ of, among }]);
  return told === 'yes' || (told === 'if-mutual' && tellsTheSame([{ of: among, among: of }]) !== 'no');
}
const wrong = (story: Story, expected: boolean): number[] =>
  Array.from({ length: SEEDS }, (_, seed) => seed).filter((seed) => mutually(drawnTellers(seed, story)) !== expected);

describe('the same events', () => {
  for (const story of COPIES) it(`are told by ${story} of one program`, () => expect(wrong(story, true)).toEqual([]));
  for (const story of APART) it(`are not told by ${story}`, () => expect(wrong(story, false)).toEqual([]));

  it('are not told where most of a source stands in none', () => {
    const { of, among } = drawnTellers(3, 'a part');
    expect(tellsTheSame([{ of: among, among: of }])).toBe('no');
  });
  it('are not told by other machines, or by other programs that records name', () => {
    const { of, among } = drawnTellers(5, 'two files');
    const by = (who: Partial<Told>, told: readonly Told[]): Told[] => told.map((one) => ({ ...one, ...who }));
    const told = (a: Partial<Told>, b: Partial<Told>): boolean =>
      mutually({ of: { ...of, told: by(a, of.told) }, among: { ...among, told: by(b, among.told) } });
    expect(told({ host: 'north-1' }, { host: 'north-1' })).toBe(true);
    expect(told({ host: 'north-1' }, { host: 'north-2' })).toBe(false);
    expect(told({ named: true, component: 'pressroom' }, { named: true, component: 'gatehouse' })).toBe(false);
  });
  it('are told by two files of one machine that each add something of their own', () => {
    const { of, among } = drawnTellers(8, 'two files');
    const add = (all: readonly Told[], component: string): Told[] =>
      all.map((one) => ({ ...one, at: Math.floor(one.at / 1000) * 1000, host: 'north-1', component }));
    const asked = { of: { told: add(of.told, 'trail'), coarse: 1000 }, among: { told: add(among.told, 'pressroom'), coarse: 1000 } };
    expect(tellsTheSame([asked])).toBe('yes');
    // where nobody says on which machine, only if each tells all of the other
    const nowhere = (told: readonly Told[]): Told[] => told.map((one) => ({ ...one, host: '' }));
    expect(tellsTheSame([{ of: { ...asked.of, told: nowhere(asked.of.told) }, among: { ...asked.among, told: nowhere(asked.among.told) } }])).toBe(
      'if-mutual',
    );
  });
});
