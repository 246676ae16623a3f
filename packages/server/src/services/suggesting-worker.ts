import { parentPort, workerData } from 'node:worker_threads';
import { Finder, suggestKinds, type IdentifierKind, type SuggestRecord } from '@fadenweg/core';
import { connect } from '../database/connect.ts';
import { RecordRepository } from '../repositories/records.ts';
import { textOf } from './sample-text.ts';

/** Stretches of the data that are looked at, and records of each. */
const STRETCHES = 10;
const EACH = 2500;

export interface SuggestingData {
  databaseUrl: string;
  kinds: IdentifierKind[];
  components: [number, string][];
}

const { databaseUrl, kinds, components } = workerData as SuggestingData;
const db = connect(databaseUrl);
try {
  const names = new Map(components);
  const finder = new Finder(kinds);
  const rows = await new RecordRepository(db).samples(STRETCHES, EACH);
  const records = rows.map((row): SuggestRecord => {
    const fields = row.attributes ?? {};
    const known = finder.find(textOf(row.message, fields), fields, '').map(({ value, kind }) => ({ value, role: kinds[kind]!.role }));
    return { component: names.get(row.component_id) ?? '', text: row.message, fields, known };
  });
  parentPort!.postMessage(suggestKinds(records));
} finally {
  await db.destroy();
}
