import { parseSearch } from '../search/language/parse.ts';
import { durationOf } from '../search/language/values.ts';
import { filledSearch, placesIn, STEP_PARTS } from './fill.ts';
import type { Blank, Runbook, RunbookStep, StepSum } from './types.ts';

/** What is wrong with a runbook, and where: `steps.2.look.q`. */
export interface RunbookProblem {
  at: string;
  problem: string;
}

const SOME: StepSum = {
  count: 1,
  partial: false,
  first: null,
  last: null,
  times: [],
  values: [{ value: 'x', count: 1 }],
  strands: [],
  sentences: [],
};

/** What is wrong with a runbook beyond its form: names that nothing has, searches that are not understood, durations that are none. */
export function problemsOf({ blanks, steps, finding }: Runbook): RunbookProblem[] {
  const problems: RunbookProblem[] = [];
  const say = (at: string, problem: string): void => void problems.push({ at, problem });
  doubles(blanks.map((one) => one.name)).forEach((name) => say('blanks', `two blanks are called ${name}`));
  doubles(steps.map((one) => one.name)).forEach((name) => say('steps', `two steps are called ${name}`));
  const named = new Set(blanks.map((one) => one.name));
  blanks.forEach((one: Blank, i) => {
    if (one.kind === 'choice' && (one.values === null || (Array.isArray(one.values) && one.values.length === 0)))
      say(`blanks.${i}.values`, 'a choice needs values, or a field whose values they are');
  });
  const places = (at: string, template: string, before: ReadonlySet<string>): void => {
    for (const { name, part } of placesIn(template)) {
      if (part === null && !named.has(name)) say(at, `no blank is called ${name}`);
      if (part !== null && !before.has(name)) say(at, `no step before is called ${name}`);
      if (part !== null && !(STEP_PARTS as readonly string[]).includes(part)) say(at, `a step has no ${part}; it has ${STEP_PARTS.join(', ')}`);
    }
  };
  const before = new Set<string>();
  steps.forEach((step, i) => {
    const at = `steps.${i}`;
    for (const [key, template] of templatesOf(step)) places(`${at}.look.${key}`, template, before);
    if (step.look.what === 'records') {
      const q = filledSearch(
        step.look.q,
        Object.fromEntries([...named].map((name) => [name, 'x'])),
        Object.fromEntries([...before].map((name) => [name, SOME])),
      );
      const { problem } = parseSearch(q ?? '');
      if (problem) say(`${at}.look.q`, problem.message);
    }
    if (step.look.what === 'strands' && step.look.among !== '' && !before.has(step.look.among))
      say(`${at}.look.among`, `no step before is called ${step.look.among}`);
    if (step.around) {
      if (!before.has(step.around.step)) say(`${at}.around.step`, `no step before is called ${step.around.step}`);
      for (const side of ['before', 'after'] as const)
        if (!(durationOf(step.around[side]) >= 0)) say(`${at}.around.${side}`, `“${step.around[side]}” is no duration like 30s, 5min, 2h`);
    }
    before.add(step.name);
    places(`${at}.found`, step.found, before);
    places(`${at}.nothing`, step.nothing, before);
  });
  finding.forEach((part, i) => {
    if (part.when !== '' && !before.has(part.when)) say(`finding.${i}.when`, `no step is called ${part.when}`);
    places(`finding.${i}.text`, part.text, before);
  });
  return problems;
}

/** All texts of a look that may hold blanks. */
function templatesOf({ look }: RunbookStep): [string, string][] {
  return Object.entries(look).filter((one): one is [string, string] => one[0] !== 'what' && typeof one[1] === 'string');
}
const doubles = (names: readonly string[]): string[] => [...new Set(names.filter((name, i) => names.indexOf(name) !== i))];
