import type { LayoutTrialInfo, SourceChange } from '@fadenweg/api';
import { decode, isZone, LayoutTrial, sampleOf, timePattern, type Encoding, type TrialResult } from '@fadenweg/core/reading';
import { isoMicros } from '@fadenweg/core/units';
import type { OriginalText } from '../evidence/original.ts';
import type { EvidenceRows } from '../evidence/room.ts';
import type { FamilyRow, SourceRow } from '../evidence/sources.ts';
import { Refusal } from '../platform/http/problems.ts';
import type { ImportService } from './import-service.ts';

/** A trial reads for so long at most, in milliseconds. */
const LONGEST_TRIAL = 8000;
const SAMPLE = 1 << 16;
/** Formats whose lines say nothing of a time: they are read as text where one tells how their times are written. */
const WITHOUT_TIMES = new Set(['plain']);

/** @throws a refusal while it is being read */
export function notReading(row: FamilyRow): void {
  if (row.state === 'waiting' || row.state === 'reading')
    throw new Refusal(409, 'Still being read', `“${row.path}” is being read at the moment.`, 'Wait until it is read, or cancel its import.');
}

/** What people say of how sources are to be read. */
export class SourceChanging {
  constructor(
    private readonly rows: Pick<EvidenceRows, 'sources' | 'names'>,
    private readonly original: OriginalText,
    private readonly imports: ImportService,
  ) {}

  /** Sets it for all parts of these sources, and reads them again. */
  async apply(rows: readonly FamilyRow[], body: SourceChange): Promise<void> {
    const { sources, names } = this.rows;
    this.check(body);
    rows.forEach(notReading);
    const change: Partial<SourceRow> = {};
    if (body.format !== undefined) change.format = body.format;
    if (body.zone !== undefined) Object.assign(change, { zone: body.zone, zone_by: 'set' });
    if (body.environment !== undefined) change.environment = body.environment;
    if (body.component !== undefined) Object.assign(change, { component_id: await names.idOf('component', body.component), component_fixed: true });
    if (body.apart !== undefined) change.apart = body.apart;
    if (body.host !== undefined) Object.assign(change, { host_id: await names.idOf('host', body.host), host_fixed: body.host !== '' });
    const parts = (await Promise.all(rows.map((row) => sources.partsOf(row.id)))).flat();
    const ids = parts.map((part) => part.id);
    await this.imports.due(ids);
    if (Object.keys(change).length > 0) await sources.change(ids, change);
    for (const part of parts) {
      const own = hintsAfter(part, body);
      if (own) await sources.change(part.id, own);
    }
    await this.imports.readAgain(ids);
  }

  /** What a layout of times would come to, over all parts; nothing is changed. */
  async tryLayout(parts: readonly SourceRow[], timeLayout: string, zone?: string): Promise<LayoutTrialInfo> {
    this.check({ timeLayout, ...(zone === undefined ? {} : { zone }) });
    const until = Date.now() + LONGEST_TRIAL;
    let whole = true;
    const results: TrialResult[] = [];
    for (const part of parts) {
      const { trial, ended } = await this.tried(part, timeLayout, zone ?? part.zone, until);
      if (trial) results.push(trial.result);
      whole &&= ended;
      if (!ended) break;
    }
    const sum = (of: 'records' | 'understood' | 'backwards'): number => results.reduce((all, one) => all + one[of], 0);
    const moment = (all: (number | null)[], best: (...of: number[]) => number): string | null => {
      const told = all.filter((one) => one !== null);
      return told.length === 0 ? null : isoMicros(best(...told));
    };
    return {
      whole,
      records: sum('records'),
      understood: sum('understood'),
      from: moment(
        results.map((one) => one.first),
        Math.min,
      ),
      to: moment(
        results.map((one) => one.last),
        Math.max,
      ),
      backwards: sum('backwards'),
      examples: results.flatMap((one) => one.examples.map((example) => ({ ...example, at: isoMicros(example.at) }))).slice(0, 5),
      missed: results.flatMap((one) => one.missed).slice(0, 5),
    };
  }
  private async tried(part: SourceRow, layout: string, zone: string, until: number): Promise<{ trial: LayoutTrial | null; ended: boolean }> {
    const encoding = part.encoding as Encoding;
    const changed = { ...part, ...hintsAfter(part, { timeLayout: layout }) };
    let trial: LayoutTrial | null = null;
    for await (const chunk of this.original.slice(part, 1, part.done_lines)) {
      const context = { ...changed.hints, zone };
      trial ??= new LayoutTrial(
        changed.format,
        sampleOf(part.path, decode(chunk.subarray(0, SAMPLE), encoding), chunk.length <= SAMPLE),
        context,
        encoding,
      );
      trial.feed(chunk, false);
      // others are served in between
      await new Promise((resolve) => setImmediate(resolve));
      if (Date.now() > until) return { trial, ended: false };
    }
    trial?.feed(new Uint8Array(0), true);
    return { trial, ended: true };
  }

  private check({ zone, timeLayout }: SourceChange): void {
    if (zone !== undefined && !isZone(zone))
      throw new Refusal(400, 'Unknown zone', `“${zone}” is no IANA time zone.`, 'Give a name like Europe/Berlin or UTC.');
    if (timeLayout === undefined || timeLayout === null) return;
    try {
      timePattern(timeLayout);
    } catch (error) {
      if (!(error instanceof RangeError)) throw error;
      throw new Refusal(400, 'No layout of times', error.message, 'Give it as yyyy-MM-dd HH:mm:ss,SSS: letters for the parts, quotes around words.');
    }
  }
}

/** What a source is read by when somebody says how its dates or times are to be taken; null where that was not said. */
function hintsAfter(
  { hints, format }: SourceRow,
  { dateOrder, timeLayout, standsAt, snapshots, format: set }: SourceChange,
): Partial<SourceRow> | null {
  if ([dateOrder, timeLayout, standsAt, snapshots, set].every((one) => one === undefined)) return null;
  const { timePattern: before, ...rest } = hints;
  const pattern = timeLayout === undefined ? before : (timeLayout ?? undefined);
  return {
    hints: {
      ...rest,
      ...(dateOrder === undefined ? {} : { dateOrder, orderBy: 'set' as const }),
      ...(standsAt === undefined ? {} : { standsAt }),
      ...(snapshots === undefined ? {} : { snapshots }),
      ...(set === undefined ? {} : { formatBy: 'set' as const }),
      ...(pattern === undefined ? {} : { timePattern: pattern }),
      ...(timeLayout ? lacking(timeLayout) : {}),
    },
    ...(timeLayout && WITHOUT_TIMES.has(format) ? { format: 'text' } : {}),
  };
}
/** What times of a layout do not tell. */
function lacking(layout: string): { lacksZone: boolean; lacksYear: boolean } {
  const { parts } = timePattern(layout);
  return { lacksZone: !parts.some((part) => part === 'offset' || part === 'abbreviation'), lacksYear: !parts.includes('year') };
}
