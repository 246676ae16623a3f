import { describe, expect, test } from '@jest/globals';
import * as fc from 'fast-check';
import { sentenceText } from '../findings/sentence.ts';
import type { Finding } from '../findings/types.ts';
import { MARK } from '../path/marks.ts';
import { pathOf } from '../path/path.ts';
import type { StrandRecord } from '../path/types.ts';
import { said } from '../usual/testing/legs.ts';
import { storyOf } from './story.ts';

const told = (records: StrandRecord[], findings: Partial<Finding>[] = []): string[] =>
  storyOf(
    records,
    pathOf(records, () => false),
    findings as Finding[],
  ).map((one) => sentenceText(one.sentence, (at) => `${at / 1000} ms`));

describe('a told story', () => {
  test('a sentence a step, with how long each worked and what it said', () => {
    expect(told([said(0, 'shop', 'order taken'), said(40, 'mill', 'grinding'), said(90, 'mill', 'ground'), said(100, 'shop', 'delivered')])).toEqual([
      'It began at 0 ms in shop, where it took 50 ms: “order taken”.',
      'mill took it over and worked on it for 50 ms: “grinding”.',
    ]);
  });

  test('where it failed is told by the record that says so', () => {
    const records = [
      said(0, 'shop', 'order taken'),
      said(10, 'mill', 'grinding'),
      said(900, 'mill', 'stone broken', { marks: MARK.failing, level: 5 }),
    ];
    const story = told(records, [{ kind: 'failed-at', record: 2, missingNext: null, excess: null }]);
    expect(story[1]).toContain('mill worked on it for 890 ms and failed: “stone broken”. This is where it failed.');
  });

  test('what should have come next, and time that was lost', () => {
    const records = [said(0, 'shop', 'order taken'), said(10, 'cart', 'loaded')];
    expect(told(records, [{ kind: 'stopped-before', record: 1, missingNext: 'gate', excess: null }])[1]).toMatch(
      /Next should have been gate, which said nothing\.$/,
    );
    expect(told(records, [{ kind: 'slowed-by', record: 1, missingNext: null, excess: 4_000_000 }])[1]).toMatch(/Here it lost 4\.00 s\.$/);
  });

  test('every step is told once, in the order of the steps, by a record of its own', () => {
    const component = fc.constantFrom('shop', 'mill', 'cart');
    fc.assert(
      fc.property(fc.array(component, { minLength: 1, maxLength: 40 }), (components) => {
        const records = components.map((name, i) => said(i * 7, name, `${name} says ${i}`));
        const path = pathOf(records, () => false);
        const story = storyOf(records, path, []);
        expect(story.map((one) => one.step).sort((a, b) => a - b)).toEqual(path.steps.map((step) => step.id));
        for (const one of story) expect(path.steps[one.step - 1]!.records).toContain(one.record);
      }),
    );
  });
});
