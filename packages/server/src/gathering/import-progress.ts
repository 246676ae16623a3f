import type { ImportInfo } from '@fadenweg/api';
import type { ImportRepository, ImportRow } from './imports.ts';

/** Tells how far imports are, and how fast they go. */
export class ImportProgress {
  private readonly rates = new Map<number, { at: number; records: number; bytes: number; perSecond: number; bytesPerSecond: number }>();

  constructor(private readonly rows: ImportRepository) {}

  async of(row: ImportRow): Promise<ImportInfo> {
    const { records, understood, readBytes, total } = await this.rows.sums(row.id);
    const { perSecond, bytesPerSecond } = this.rate(row, records, readBytes);
    return {
      id: row.id,
      state: row.state,
      startedAt: row.started_at.toISOString(),
      endedAt: row.ended_at?.toISOString() ?? null,
      who: row.who,
      environment: row.environment,
      demo: row.demo,
      files: row.files,
      alreadyThere: row.already_there,
      bytes: row.bytes,
      readBytes,
      records,
      understood,
      keptWhole: records - understood,
      perSecond,
      secondsLeft: row.state === 'reading' && bytesPerSecond > 0 ? Math.ceil((total - readBytes) / bytesPerSecond) : null,
      errors: row.errors,
    };
  }

  private rate(row: ImportRow, records: number, bytes: number): { perSecond: number; bytesPerSecond: number } {
    if (row.state !== 'reading' && row.state !== 'receiving') {
      this.rates.delete(row.id);
      const seconds = row.ended_at ? (row.ended_at.getTime() - row.started_at.getTime()) / 1000 : 0;
      return { perSecond: seconds > 0 ? Math.round(records / seconds) : 0, bytesPerSecond: 0 };
    }
    const before = this.rates.get(row.id);
    const now = Date.now();
    if (before && now - before.at < 900) return before;
    const seconds = before ? (now - before.at) / 1000 : Math.max(0.5, (now - row.started_at.getTime()) / 1000);
    const next = {
      at: now,
      records,
      bytes,
      perSecond: Math.round((records - (before?.records ?? 0)) / seconds),
      bytesPerSecond: (bytes - (before?.bytes ?? 0)) / seconds,
    };
    this.rates.set(row.id, next);
    return next;
  }
}
