import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { parseSearch } from '../search/language/parse.ts';
import { problemsOf } from './check.ts';
import { filledSearch, filledText, findingText } from './fill.ts';
import { SUPPLIED_RUNBOOKS } from './supplied.ts';
import type { Runbook, StepSum } from './types.ts';

const sum = (more: Partial<StepSum> = {}): StepSum => ({
  count: 0,
  partial: false,
  first: null,
  last: null,
  times: [],
  values: [],
  strands: [],
  sentences: [],
  ...more,
});
const few = sum({ count: 1200, first: '2026-04-01T08:00:00Z', values: [{ value: "O'1", count: 900 }, { value: 'b', count: 300 }] }); // prettier-ignore
const clock = (iso: string): string => iso.slice(11, 16);

describe('a search with blanks', () => {
  it('takes a value as a value, whatever it holds', () => {
    fc.assert(
      fc.property(fc.string({ minLength: 1 }), (value) => {
        const q = filledSearch('where component = {c} and level = error', { c: value }, {})!;
        const { search, problem } = parseSearch(q);
        expect(problem).toBeNull();
        expect(search!.condition).toMatchObject({ type: 'and' });
        expect((search!.condition as { parts: unknown[] }).parts).toHaveLength(2);
      }),
    );
  });
  it('takes the values of a step as a list, and is none where there are none', () => {
    expect(filledSearch('where order in ({s.values})', {}, { s: few })).toBe("where order in ('O''1', 'b')");
    expect(filledSearch('where order in ({s.values})', {}, { s: sum() })).toBeNull();
  });
  it('is filled inside of a text in quotes too', () => {
    expect(filledSearch("where message like '%{w}%'", { w: "it's" }, {})).toBe("where message like '%it''s%'");
  });
});

describe('the text of a finding', () => {
  it('names what steps came to', () => {
    expect(filledText('{c}: {s.count} since {s.first}, {s.top}; {s.values}; {unknown}', { c: 'desk' }, { s: few }, clock)).toBe(
      "desk: 1,200 since 08:00, O'1 (900), b (300); O'1, b; {unknown}",
    );
    expect(filledText('{s.count}', {}, { s: sum({ count: 5, partial: true }) }, clock)).toBe('at least 5');
  });
  it('has those parts whose steps came to what they ask for', () => {
    const parts = [{ when: '', has: 'found' as const, text: 'Always.' }, { when: 's', has: 'found' as const, text: 'Found {s.count}.' }, { when: 's', has: 'nothing' as const, text: 'Nothing.' }]; // prettier-ignore
    expect(findingText(parts, {}, {}, clock)).toBeNull();
    expect(findingText(parts, {}, { s: few }, clock)).toBe('Always. Found 1,200.');
    expect(findingText(parts, {}, { s: sum() }, clock)).toBe('Always. Nothing.');
  });
});

describe('a runbook', () => {
  it.each(SUPPLIED_RUNBOOKS.map((one) => [one.name, one] as const))('that is supplied is in order: %s', (_name, one) => {
    expect(problemsOf(one)).toEqual([]);
  });
  it('is refused with the place of each mistake', () => {
    const wrong = structuredClone(SUPPLIED_RUNBOOKS[0]!) as Runbook;
    wrong.blanks[0]!.values = null;
    wrong.steps[0]!.found = '{nobody} and {met.count} and {restart.sum}';
    wrong.steps[1]!.look = { what: 'records', q: 'where component =', by: '' };
    wrong.steps[1]!.around = { step: 'harmed', at: 'each', before: 'long', after: '1s' };
    wrong.finding[0]!.when = 'elsewhere';
    expect(problemsOf(wrong).map((one) => one.at)).toEqual([
      'blanks.0.values',
      'steps.0.found',
      'steps.0.found',
      'steps.0.found',
      'steps.1.look.q',
      'steps.1.around.step',
      'steps.1.around.before',
      'finding.0.when',
    ]);
  });
});
