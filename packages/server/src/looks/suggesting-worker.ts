import { parentPort, workerData } from 'node:worker_threads';
import { bestSet, knownIn, STANDARD_KINDS, suggestKinds, type IdentifierKind } from '@fadenweg/core/identifiers';
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
  const known = knownIn(records, kinds);
  // where somebody has said what people ask by, nothing is to be taken for it
  const declared = kinds.some((kind) => kind.role === 'business' && !STANDARD_KINDS.some((one) => one.name === kind.name));
  parentPort!.postMessage({ items: suggestKinds(known), best: declared ? null : bestSet(known) });
} finally {
  await db.destroy();
}
