import { expect, test } from '@jest/globals';
import type { LadderArrow } from '@fadenweg/api';
import { ladderLayout, ROW, TIMES } from './ladder-layout.ts';

const at = (second: number): string => `2026-11-24T08:00:${String(second).padStart(2, '0')}.000000Z`;
const arrow = (second: number, from: number, to: number, label: string, status: number | null = null, method = 'INVITE'): LadderArrow => ({ record: `${second}`, arrived: null, at: at(second), afterMs: 0, underMs: null, from, to, label, method, number: 1, status, dialog: 0, again: false, media: '', usualMs: null }); // prettier-ignore
const LANES = ['caller', 'switch', 'desk'].map((label) => ({ label, detail: '' }));
const ARROWS = [arrow(0, 0, 1, 'INVITE'), arrow(1, 1, 2, 'INVITE'), arrow(2, 2, 1, '200 OK', 200), arrow(3, 0, 1, 'ACK', null, 'ACK'), arrow(9, 0, 1, 'BYE', null, 'BYE'), arrow(10, 1, 0, '200 OK', 200, 'BYE')]; // prettier-ignore

test('lanes share the room, arrows go from lane to lane, time runs down', () => {
  const laid = ladderLayout({ lanes: LANES, arrows: ARROWS, talk: null }, TIMES + 900);
  expect(laid.lanes.map(({ x }) => x)).toEqual([TIMES + 150, TIMES + 450, TIMES + 750]);
  expect(laid.arrows.map(({ way }) => way)).toEqual([1, 1, -1, 1, 1, -1]);
  expect(laid.arrows.map(({ y }) => y)).toEqual(ARROWS.map((_, i) => ROW * (i + 0.5)));
  expect(laid.arrows.map(({ tone }) => tone)).toEqual(['plain', 'plain', 'good', 'plain', 'plain', 'plain']);
});
test('with little room the lanes stay readable, and it is scrolled', () => {
  expect(ladderLayout({ lanes: LANES, arrows: [], talk: null }, 300)).toMatchObject({ laneWidth: 150, width: TIMES + 450, height: 0 });
});
test('talking is a band from the message that confirms to the one that ends it, or to the end', () => {
  const talked = ladderLayout({ lanes: LANES, arrows: ARROWS, talk: { from: at(3), to: at(9) } }, TIMES + 900).talk;
  expect(talked).toEqual({ top: ROW * 3.5, bottom: ROW * 4.5, left: TIMES + 150, right: TIMES + 750 });
  expect(ladderLayout({ lanes: LANES, arrows: ARROWS, talk: { from: at(3), to: null } }, TIMES + 900).talk).toMatchObject({ bottom: ROW * 6 });
  expect(ladderLayout({ lanes: LANES.slice(0, 1), arrows: [], talk: { from: at(3), to: null } }, 900).talk).toBeNull();
});
test('what turns away is told apart, what is normal working is not', () => {
  const tones = [486, 401, 487, 503, 302].map(
    (status) => ladderLayout({ lanes: LANES, arrows: [arrow(0, 1, 0, 'x', status)], talk: null }, 900).arrows[0]!.tone,
  );
  expect(tones).toEqual(['bad', 'plain', 'plain', 'bad', 'bad']);
});
