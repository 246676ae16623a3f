import type { Platform, Room } from '../platform/room.ts';
import { ClockRepository } from './clock-rows.ts';
import { coverageRoutes } from './coverage-routes.ts';
import { CoverageRepository } from './coverage.ts';
import { IdentifierRepository } from './identifiers.ts';
import { KeptBytesRepository } from './kept-bytes.ts';
import { Names } from './names.ts';
import { RecordRepository } from './records.ts';
import { SourceRepository } from './sources.ts';

/** What came in, as rows: sources and their bytes, records, identifiers, names, clocks, how far each source reaches. */
export interface Evidence extends Room {
  names: Names;
  sources: SourceRepository;
  bytes: KeptBytesRepository;
  records: RecordRepository;
  identifiers: IdentifierRepository;
  coverage: CoverageRepository;
  clocks: ClockRepository;
}

export async function evidenceRoom({ db }: Platform): Promise<Evidence> {
  const names = new Names(db);
  await names.load();
  const sources = new SourceRepository(db);
  const coverage = new CoverageRepository(db);
  return {
    names,
    sources,
    bytes: new KeptBytesRepository(db),
    records: new RecordRepository(db),
    identifiers: new IdentifierRepository(db),
    coverage,
    clocks: new ClockRepository(db),
    endpoints: coverageRoutes(coverage, sources, names),
  };
}
