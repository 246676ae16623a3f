import { parentPort, workerData } from 'node:worker_threads';
import { discoverIn, type IdentifierKind } from '@fadenweg/core/identifiers';
import { connect } from '../database/connect.ts';
import { RecordRepository } from '../evidence/records.ts';

export interface DiscoveringData {
  databaseUrl: string;
  kinds: IdentifierKind[];
  /** Only what was written there is looked at. */
  environment: string;
}

/** Finds links that nobody declared in samples of the records. */
const { databaseUrl, kinds, environment } = workerData as DiscoveringData;
const db = connect(databaseUrl);
try {
  const records = await new RecordRepository(db).sampled(String, environment);
  parentPort!.postMessage(discoverIn(records, kinds));
} finally {
  await db.destroy();
}
