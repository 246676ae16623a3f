import { compileSearch, type Searchable } from './language/evaluate.ts';
import { parseSearch } from './language/parse.ts';
import type { Search } from './language/tree.ts';
import type { Weight } from '../weights/index.ts';

/** A person said: whatever this search finds weighs so much. */
export interface WeightRule {
  name: string;
  label: string;
  /** In the search language. */
  q: string;
  weight: Weight;
}
export interface WeightRules {
  searches: readonly { search: Search; weight: Weight }[];
  /** By the first rule that finds it; null for none. */
  weigh(record: Searchable): Weight | null;
}

/**
 * Makes rules ready to be asked.
 *
 * @throws where a rule's search is not right; rules are checked when they are saved
 */
export function compileWeights(rules: readonly WeightRule[]): WeightRules {
  const searches = rules.map(({ q, label, weight }) => {
    const { search, problem } = parseSearch(q);
    if (problem) throw new Error(`the weight “${label}”: ${problem.message}`);
    return { search, weight };
  });
  const tests = searches.map(({ search, weight }) => ({ test: compileSearch(search), weight }));
  return { searches, weigh: (record) => tests.find(({ test }) => test(record))?.weight ?? null };
}
