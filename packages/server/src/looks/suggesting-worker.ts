import { parentPort, workerData } from 'node:worker_threads';
import { suggestKinds, type IdentifierKind } from '@fadenweg/core/identifiers';
import { connect } from '../database/connect.ts';
import { RecordRepository } from '../evidence/records.ts';
import { knownIn, sampledRows } from './sampled.ts';

export interface SuggestingData {
  databaseUrl: string;
  kinds: IdentifierKind[];
  components: [number, string][];
}

const { databaseUrl, kinds, components } = workerData as SuggestingData;
const db = connect(databaseUrl);
try {
  const names = new Map(components);
  const rows = await sampledRows(new RecordRepository(db));
  const records = knownIn(rows, kinds, (id) => names.get(id) ?? '');
  parentPort!.postMessage(suggestKinds(records));
} finally {
  await db.destroy();
}
