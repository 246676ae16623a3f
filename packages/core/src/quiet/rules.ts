import { compileSearch, type Test } from '../search/language/evaluate.ts';
import { parseSearch } from '../search/language/parse.ts';

/** A rule that takes noise out of sight: whatever its search finds. */
export interface QuietRule {
  name: string;
  label: string;
  /** In the search language. */
  q: string;
}

/** Rules that come with the application: what the records are, not where they come from. */
export const SUPPLIED_RULES: readonly (QuietRule & { why: string; on: boolean })[] = [
  {
    name: 'health-checks',
    label: 'Health checks',
    why: 'requests of a path that only asks whether something is alive, answered well',
    q: `where level <= info and (path matches '${healthPath()}' or url matches '${healthPath('[a-z]+://[^/]*')}' or target matches '${healthPath()}')`,
    on: true,
  },
  outsideCalls('registrations', 'Registrations of phones', 'REGISTER of SIP and its answers', 'REGISTER'),
  outsideCalls('keep-alive', 'Pings of phones and trunks', 'OPTIONS of SIP that belong to no call, and their answers', 'OPTIONS'),
  outsideCalls(
    'presence',
    'Presence of phones',
    'SUBSCRIBE, NOTIFY and PUBLISH of SIP that belong to no call, and their answers',
    '(?:SUBSCRIBE|NOTIFY|PUBLISH)',
  ),
  outsideCalls('texts', 'Texts between phones', 'MESSAGE of SIP that belongs to no call, and its answers', 'MESSAGE'),
  { name: 'debug', label: 'Levels trace and debug', why: 'detail for those who write the program', q: 'where level in (trace, debug)', on: false },
];

/** Messages of SIP that belong to no call, by their method. */
function outsideCalls(name: string, label: string, why: string, methods: string): QuietRule & { why: string; on: boolean } {
  return { name, label, why, q: `where level <= info and call-id is null and cseq matches '${methods}$'`, on: true };
}
function healthPath(before = ''): string {
  return `(?i)^${before}/(?:[a-z0-9_-]+/)?(?:health|healthz|healthcheck|ping|ready|readyz|live|livez|alive|heartbeat)(?:[/?]|$)`;
}

/** The rule that learns by itself what recurs. */
export const HEARTBEATS = { name: 'heartbeats', label: 'Heartbeats', why: 'messages that recur at regular intervals and belong to no transaction' };

/** The rule of what people are done with: its search is made of what they say. */
export const SETTLED_FAULTS = {
  name: 'settled-faults',
  label: 'Mended and tolerated faults',
  why: 'errors of faults that people are done with, until they return',
};

/** The search of the rule above. @param faults numbers of the faults; '' for none */
export const searchOfFaults = (faults: readonly number[]): string => (faults.length === 0 ? '' : `where fault in (${faults.join(', ')})`);

/**
 * Makes rules into one function: the place of the first rule that hides a record, -1 where none does.
 *
 * @throws where a rule's search is not right; rules are checked when they are saved
 */
export function compileRules(rules: readonly QuietRule[]): (record: Parameters<Test>[0]) => number {
  const tests = rules.map((rule) => {
    const { search, problem } = parseSearch(rule.q);
    if (problem) throw new Error(`the rule “${rule.label}”: ${problem.message}`);
    return compileSearch(search);
  });
  return (record) => tests.findIndex((test) => test(record));
}
