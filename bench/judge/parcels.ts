import { execFile } from 'node:child_process';
import { mkdir, readFile, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { promisify } from 'node:util';
import type { Place, TrueTransaction } from '@fadenweg/standin';
import { declaredBy, filesBelow, type JudgedWorld } from './world.ts';

interface Transaction {
  id: string;
  kind: string;
  identifiers: { k: string; v: string }[];
  outcome: string;
  fault: string | null;
  rootComponent: string | null;
  rootText: string | null;
  missingNext: string | null;
  missingAlso?: string[];
  slowComponent: string | null;
  relatedTo?: string;
}
const OUTCOMES: Record<string, string> = { ok: 'done', failed: 'failed', slow: 'slow', stuck: 'stalled', rejected: 'refused', duplicate: 'doubled' };

/** A parcel network, drawn by a generator of other hands. */
export async function parcels(generator: string, seed: number, transactions: number, out: string): Promise<JudgedWorld> {
  await rm(out, { recursive: true, force: true });
  await mkdir(out, { recursive: true });
  await promisify(execFile)('node', [
    join(generator, 'generate.mjs'),
    ...['--out', out, '--transactions', String(transactions), '--hours', '6', '--seed', String(seed), '--quiet'],
  ]);
  const { files } = JSON.parse(await readFile(join(out, 'population.json'), 'utf8')) as { files: { parts: string[] }[] };
  const truth = await jsonLines<Transaction>(join(out, 'truth.jsonl'));
  const records = new Map(
    (await jsonLines<{ id: string; at: Record<string, number[]> }>(join(out, 'truth-records.jsonl'))).map((one) => [one.id, one.at]),
  );
  const placesOf = (id: string): Place[] =>
    Object.entries(records.get(id) ?? {}).flatMap(([at, lines]) => {
      const [file, part] = at.split('.').map(Number);
      const path = files[file!]!.parts[part ?? 0]!.replace(/^logs\//, '');
      return lines.map((line) => `${path}:${line}`);
    });
  const sources = await filesBelow(join(out, 'logs'));
  const lineOf = finderOf(sources.map(({ path, bytes }) => ({ path, text: Buffer.from(bytes).toString('utf8') })));
  const neutral = new Map<string, Set<Place>>();
  const aside = (of: string, places: readonly Place[]): void => {
    const own = neutral.get(of) ?? new Set<Place>();
    neutral.set(of, own);
    for (const place of places) own.add(place);
  };
  for (const one of truth) {
    if (!one.relatedTo) continue;
    aside(one.id, placesOf(one.relatedTo));
    aside(one.relatedTo, placesOf(one.id));
  }
  return {
    name: `parcels, seed ${seed}`,
    files: sources,
    declared: await declaredBy(join(generator, 'kinds.json')),
    truth: () => truth.map((one) => trueOf(one, placesOf(one.id), lineOf)),
    neutral,
  };
}

function trueOf(one: Transaction, places: Place[], lineOf: (text: string, among: readonly Place[]) => Place | null): TrueTransaction {
  const root = one.rootText === null ? null : lineOf(one.rootText, places);
  return {
    id: one.id,
    kind: one.kind,
    strand: one.id,
    legs: [places],
    byLeg: false,
    identifiers: one.identifiers.map(({ v }) => v),
    outcomes: [OUTCOMES[one.outcome]!],
    good: one.outcome === 'ok' && one.fault === null,
    fault: one.fault,
    cause: one.rootComponent === null ? null : { components: [one.rootComponent], records: root === null ? [] : [root] },
    next: one.missingNext === null ? null : [one.missingNext, ...(one.missingAlso ?? [])],
    slowIn: one.outcome === 'slow' ? one.slowComponent : null,
  };
}

/** Where a text stands that only one line holds: looked for among some places first, then everywhere. */
function finderOf(sources: readonly { path: string; text: string }[]): (text: string, among: readonly Place[]) => Place | null {
  const lines = new Map(sources.map(({ path, text }) => [path, text.split('\n')]));
  const lineAt = (place: Place): string =>
    lines.get(place.slice(0, place.lastIndexOf(':')))?.[Number(place.slice(place.lastIndexOf(':') + 1)) - 1] ?? '';
  return (text, among) => {
    const near = among.find((place) => lineAt(place).includes(text));
    if (near) return near;
    for (const [path, own] of lines) {
      const line = own.findIndex((one) => one.includes(text));
      if (line >= 0) return `${path}:${line + 1}`;
    }
    return null;
  };
}

async function jsonLines<One>(file: string): Promise<One[]> {
  return (await readFile(file, 'utf8')).split('\n').filter((line) => line !== '').map((line) => JSON.parse(line) as One); // prettier-ignore
}
