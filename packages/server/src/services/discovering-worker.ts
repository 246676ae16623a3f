import { parentPort, workerData } from 'node:worker_threads';
import { discoverLinks, Finder, KEEP, type Discovered, type IdentifierKind, type SuggestRecord } from '@fadenweg/core';
import { connect } from '../database/connect.ts';
import { RecordRepository } from '../repositories/records.ts';
import { textOf } from './sample-text.ts';

/** Stretches of the data that are looked at, and records of each. */
const STRETCHES = 10;
const EACH = 2500;
/** What is found ties further values: it is looked again so often. */
const ROUNDS = 3;

export interface DiscoveringData {
  databaseUrl: string;
  kinds: IdentifierKind[];
}

/** Finds links that nobody declared in samples of the records. */
const { databaseUrl, kinds } = workerData as DiscoveringData;
const db = connect(databaseUrl);
try {
  const rows = await new RecordRepository(db).samples(STRETCHES, EACH);
  const all = [...kinds];
  const found: Discovered[] = [];
  for (let round = 0; round < ROUNDS; round++) {
    const finder = new Finder(all);
    const records = rows.map((row): SuggestRecord => {
      const fields = row.attributes ?? {};
      const known = finder.find(textOf(row.message, fields), fields, '').map(({ value, kind }) => ({ value, role: all[kind]!.role }));
      return { component: '', text: row.message, fields, known };
    });
    const more = discoverLinks(records);
    if (more.length === 0) break;
    found.push(...more);
    all.push(...more.map((one, i): IdentifierKind => ({ name: `found-${round}-${i}`, role: 'link', normal: KEEP, scope: 'global', leaseMs: null, ...one }))); // prettier-ignore
  }
  parentPort!.postMessage(found);
} finally {
  await db.destroy();
}
