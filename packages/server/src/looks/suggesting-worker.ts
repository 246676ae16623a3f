import { parentPort, workerData } from 'node:worker_threads';
import { knownIn, suggestKinds, type IdentifierKind } from '@fadenweg/core/identifiers';
import { connect } from '../database/connect.ts';
import { RecordRepository } from '../evidence/records.ts';

export interface SuggestingData {
  databaseUrl: string;
  kinds: IdentifierKind[];
  components: [number, string][];
}

const { databaseUrl, kinds, components } = workerData as SuggestingData;
const db = connect(databaseUrl);
try {
  const names = new Map(components);
  const records = await new RecordRepository(db).sampled((id) => names.get(id) ?? '');
  parentPort!.postMessage(suggestKinds(knownIn(records, kinds)));
} finally {
  await db.destroy();
}
