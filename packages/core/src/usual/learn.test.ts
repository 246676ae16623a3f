import { describe, expect, test } from '@jest/globals';
import { departures } from './depart.ts';
import { Usual } from './index-of.ts';
import { FEWEST_LEGS } from './following-on.ts';
import { learnUsual } from './learn.ts';
import { dice, lessons, milling, said, usualOf } from './testing/legs.ts';

const sayingOf = (usual: Usual, text: string) => usual.of.sayings.find((one) => one.text.includes(text))!;

describe('what is usual for a flow', () => {
  test('is not said of a handful of legs', () => {
    const random = dice(1);
    const legs = Array.from({ length: FEWEST_LEGS }, () => milling(random));
    expect(learnUsual('milling', lessons(legs.slice(1)))).toBeNull();
    expect(learnUsual('milling', lessons(legs))).toMatchObject({ flow: 'milling', legs: FEWEST_LEGS, bad: 0 });
    expect(learnUsual('milling', lessons(legs, 'failed'))).toBeNull();
    expect(learnUsual('milling', [])).toBeNull();
  });

  test('short evidence teaches too: what is silent for longer than such legs ever are has come to its end', () => {
    const random = dice(5);
    const legs = Array.from({ length: 60 }, () => milling(random));
    const until = (minutes: number, patient = false) =>
      lessons(legs, 'running').map((lesson) => ({ ...lesson, patient, until: lesson.records.at(-1)!.at + minutes * 60e6 }));
    expect(learnUsual('milling', until(5))?.legs).toBe(60);
    expect(learnUsual('milling', until(0.1))).toBeNull();
    // what is declared holds
    expect(learnUsual('milling', until(5, true))).toBeNull();
  });

  test('holds the path, how long each part takes, what follows and what numbers are stated', () => {
    const usual = usualOf(200);
    expect(usual.of).toMatchObject({
      legs: 200,
      records: { least: 5, median: 5, most: 5 },
      variants: [{ components: ['shop', 'mill', 'cart'], share: 1 }],
    });
    const ground = sayingOf(usual, 'ground');
    expect(usual.of.sayings[ground.after!.saying]!.text).toBe('grinding for ‹›');
    expect(ground.after!.wait.median / 1000).toBeGreaterThan(3500);
    expect(ground.after!.wait.median / 1000).toBeLessThan(4500);
    expect(usual.of.sayings[ground.then[0]!.saying]!).toMatchObject({ component: 'cart', traits: 'status=ok' });
    expect(ground.then[0]!.share).toBeGreaterThan(0.95);
    expect(ground.volumes).toHaveLength(1);
    expect(ground.volumes[0]).toMatchObject({ of: '0' });
    expect(ground.volumes[0]!.median).toBeGreaterThan(35);
    expect(usual.of.ends).toEqual([{ saying: usual.of.sayings.indexOf(sayingOf(usual, 'delivered')), share: 1 }]);
  });

  test('leaves out what departs: faults among the good ones that nobody noticed do not count as normal', () => {
    const random = dice(3);
    const slow = Array.from({ length: 6 }, () => milling(random, { grinding: 60_000 }));
    const usual = usualOf(194, lessons(slow));
    expect(usual.of.legs).toBe(194);
    expect(sayingOf(usual, 'ground').after!.wait.p99 / 1000).toBeLessThan(6000);
    for (const records of slow) expect(departures(records, usual)[0]).toMatchObject({ kind: 'late', record: 2, since: 1 });
  });

  test('follows where a flow has changed for good: what most do is normal', () => {
    const random = dice(4);
    const usual = new Usual(learnUsual('milling', lessons(Array.from({ length: 100 }, (_, i) => milling(random, { grinding: i < 40 ? 9000 + random() * 100 : 4000 + random() * 100 }))))!); // prettier-ignore
    expect(usual.of.legs).toBe(100);
    expect(departures(milling(random, { grinding: 9050 }), usual)).toEqual([]);
  });

  test('of legs none of which is known to have come to its end is what those do that end as many others, with what is not mostly followed by more', () => {
    const random = dice(5);
    const silent = Array.from({ length: 100 }, (_, i) => milling(random).slice(0, i < 95 ? 5 : 3).map((one) => ({ ...one, marks: 0 }))); // prettier-ignore
    const usual = learnUsual('milling', lessons(silent, 'stalled'))!;
    expect(usual.legs).toBe(95);
    const fewer = learnUsual('milling', lessons([...silent, ...silent.slice(0, 20)], 'stalled'))!;
    expect(fewer.legs).toBe(115);
  });

  test('traits with many values tell nothing and are left out, others tell sayings apart', () => {
    const legs = Array.from({ length: 60 }, (_, i) => [
      said(i * 100, 'relay', 'sent', { traits: `queue=${i % 2 ? 'in' : 'out'} code=${i}` }),
      said(i * 100 + 9, 'desk', 'done', { marks: 4 }),
    ]);
    const usual = new Usual(learnUsual('x', lessons(legs))!);
    expect(usual.of.sayings.filter((one) => one.component === 'relay').map((one) => one.traits)).toEqual(['queue=out', 'queue=in']);
    expect(usual.sayingOf(said(0, 'relay', 'sent', { traits: 'queue=in code=999' }))!.legs).toBe(30);
    expect(usual.sayingOf(said(0, 'relay', 'sent', { traits: 'queue=dead code=1' }))).toBeUndefined();
    expect(usual.alike(said(0, 'relay', 'sent'))).toHaveLength(2);
  });

  test('numbers that name something or grow with time are no volumes', () => {
    const legs = Array.from({ length: 80 }, (_, i) => [
      said(i * 1000, 'batch', `ticket ${7_000_000 + ((i * 7919) % 80) * 11} at offset ${100 + i * 3} of 5 parts took 812 ms`),
      said(i * 1000 + 5, 'batch', 'done', { marks: 4 }),
    ]);
    const usual = learnUsual('x', lessons(legs))!;
    expect(usual.sayings[0]!.volumes.map((one) => one.of)).toEqual(['2']);
  });

  test('is the same whatever order the legs come in', () => {
    const random = dice(9);
    const legs = lessons(Array.from({ length: 60 }, () => milling(random)));
    const plain = (usual: Usual) =>
      usual.of.sayings.map((one) => JSON.stringify([one.component, one.shape, one.legs, one.after?.wait, one.volumes])).sort();
    expect(plain(new Usual(learnUsual('x', [...legs].reverse())!))).toEqual(plain(new Usual(learnUsual('x', legs)!)));
  });
});
