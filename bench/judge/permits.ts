import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { Place, TrueTransaction } from '@fadenweg/standin';
import type { InPlaces } from './told.ts';
import { declaredBy, filesBelow, type JudgedWorld } from './world.ts';

interface Transaction {
  tx: string;
  type: string;
  business_number: string | null;
  identifiers: Record<string, unknown>;
  outcome: string;
  fault: string | null;
  lines: Record<string, number[]>;
  incidental_slow?: boolean;
  root_cause?: { file: string; line: number } | null;
  also_accepted?: { file: string; line: number }[];
  slow_step?: { component: string };
}
interface Call {
  case_number: string | null;
  lines: Record<string, number[]>;
}
const OUTCOMES: Record<string, string> = { ok: 'done', rejected: 'refused', stuck: 'stalled', failed: 'failed', slow: 'slow' };
/** Identifiers that every record of a request may be tied by. */
const OWN = ['request_id', 'trace_id', 'message_id'];

const placesOf = (lines: Record<string, number[]>): Place[] => Object.entries(lines).flatMap(([file, own]) => own.map((line) => `${file}:${line}`));

/** The permit office: what really ran, by request. */
export async function permits(folder: string): Promise<JudgedWorld> {
  const { transactions, calls } = JSON.parse(await readFile(join(folder, 'truth.json'), 'utf8')) as { transactions: Transaction[]; calls: Call[] };
  const neutral = new Map<string, Set<Place>>();
  for (const call of calls) if (call.case_number) neutral.set(call.case_number, new Set(placesOf(call.lines)));
  return {
    name: 'permit office',
    files: await filesBelow(join(folder, 'logs')),
    declared: await declaredBy(join(folder, 'kinds.json')),
    truth: (told) => transactions.map((one) => trueOf(one, told)),
    neutral,
  };
}

function trueOf(one: Transaction, told: InPlaces): TrueTransaction {
  const cause = one.root_cause ? [one.root_cause, ...(one.also_accepted ?? [])].map(({ file, line }): Place => `${file}:${line}`) : [];
  const components = [...new Set(cause.map((place) => told.recordAt(place)?.component ?? ''))].filter((name) => name !== '').slice(0, 2);
  return {
    id: one.tx,
    kind: one.type,
    strand: one.business_number ?? one.tx,
    legs: [placesOf(one.lines)],
    byLeg: true,
    identifiers: [one.business_number, ...OWN.map((name) => one.identifiers[name])].filter((value) => typeof value === 'string'),
    outcomes: [one.fault === 'duplicate_processing' ? 'doubled' : OUTCOMES[one.outcome]!],
    good: one.fault === null && one.outcome === 'ok' && one.incidental_slow !== true,
    fault: one.fault,
    cause: components.length > 0 ? { components, records: cause } : null,
    next: null,
    slowIn: one.outcome === 'slow' && one.fault !== null && components.length > 0 ? components[0]! : null,
  };
}
