import type { ImportInfo, WaitsFor } from '@fadenweg/api';
import type { Work } from '../platform/work/work.ts';
import { aboutImport } from './import-end.ts';
import type { ImportRepository, ImportRow } from './imports.ts';

const MOST_WORK = 200;
/** Work for all that is stored. */
const SHARED = ['weave', 'read-again'];

/** Tells how far imports are, and how fast they go. */
export class ImportProgress {
  private readonly rates = new Map<number, { at: number; records: number; bytes: number; perSecond: number; bytesPerSecond: number }>();

  constructor(
    private readonly rows: ImportRepository,
    private readonly work: Work,
    /** What keeps sources from being read, null for nothing. */
    private readonly heldUpBy: () => string | null,
  ) {}

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
      waitsFor: ['reading', 'removing'].includes(row.state) ? await this.waitsFor(row.id) : [],
    };
  }

  /** Sources that are not read yet, and work that concerns it: its own, and what every import waits for. */
  private async waitsFor(importId: number): Promise<WaitsFor[]> {
    const [unread, work] = await Promise.all([this.rows.unread(importId), this.work.list(['running', 'waiting', 'failed'], null, MOST_WORK)]);
    const held = this.heldUpBy();
    const reading: WaitsFor[] =
      unread.sources > 0
        ? [
            {
              work: null,
              words: `reading ${unread.sources.toLocaleString('en')} ${unread.sources === 1 ? 'source' : 'sources'}: ${unread.example}${held === null ? '' : ` (held up: ${held})`}`,
              stopped: false,
            },
          ]
        : [];
    const own = work.filter((one) => one.about === aboutImport(importId) || SHARED.includes(one.kind));
    return [
      ...reading,
      ...own.reverse().map(({ id, kind, doing, state, error }): WaitsFor => {
        const label = this.work.label(kind);
        const problem = error === null ? '' : ` (${error})`;
        return { work: id, words: `${doing === null ? label : `${label}: ${doing}`}${problem}`, stopped: state === 'failed' };
      }),
    ];
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
