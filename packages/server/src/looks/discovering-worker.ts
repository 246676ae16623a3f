import { parentPort, workerData } from 'node:worker_threads';
import { discoverLinks, KEEP, type Discovered, type IdentifierKind } from '@fadenweg/core/identifiers';
import { connect } from '../database/connect.ts';
import { RecordRepository } from '../evidence/records.ts';
import { knownIn, sampledRows } from './sampled.ts';

/** What is found ties further values: it is looked again so often. */
const ROUNDS = 3;

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
  const rows = await sampledRows(new RecordRepository(db), environment);
  const all = [...kinds];
  const found: Discovered[] = [];
  for (let round = 0; round < ROUNDS; round++) {
    const more = discoverLinks(knownIn(rows, all, String));
    if (more.length === 0) break;
    found.push(...more);
    all.push(...more.map((one, i): IdentifierKind => ({ name: `found-${round}-${i}`, role: 'link', normal: KEEP, scope: 'global', leaseMs: null, ...one }))); // prettier-ignore
  }
  parentPort!.postMessage(found);
} finally {
  await db.destroy();
}
