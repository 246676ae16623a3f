import { Access, guarded, type Guarded } from '../platform/access.ts';
import type { Platform, Room } from '../platform/room.ts';
import { ClockRepository } from './clock-rows.ts';
import { CopyRepository } from './copies.ts';
import { coverageRoutes } from './coverage-routes.ts';
import { CoverageRepository } from './coverage.ts';
import { IdentifierRepository } from './identifiers.ts';
import { KeptBytesRepository } from './kept-bytes.ts';
import { Names } from './names.ts';
import { RecordRepository } from './records.ts';
import { SourceRepository } from './sources.ts';

/** What came in, as rows: sources and their bytes, records, identifiers, names, clocks, how far each source reaches. */
export interface EvidenceRows {
  names: Names;
  sources: SourceRepository;
  bytes: KeptBytesRepository;
  records: RecordRepository;
  identifiers: IdentifierRepository;
  coverage: CoverageRepository;
  clocks: ClockRepository;
  copies: CopyRepository;
}
export interface Evidence extends Room {
  evidence: Guarded<EvidenceRows>;
}

export async function evidenceRoom({ data }: Platform): Promise<Evidence> {
  const names = new Names(data.by(Access.ownWork).db);
  await names.load();
  const evidence = guarded((access) => {
    const { db } = data.by(access);
    return {
      names,
      sources: new SourceRepository(db),
      bytes: new KeptBytesRepository(db),
      records: new RecordRepository(db),
      identifiers: new IdentifierRepository(db),
      coverage: new CoverageRepository(db),
      clocks: new ClockRepository(db),
      copies: new CopyRepository(db),
    };
  });
  return {
    evidence,
    endpoints: guarded((access) => {
      const { coverage, sources } = evidence.by(access);
      return coverageRoutes(coverage, sources, names);
    }),
  };
}
