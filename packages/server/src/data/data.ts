import type { DataKindName, DataSet, DataSetHistory, Outcome, StrandData, TouchingRun } from '@fadenweg/api';
import { isoMicros, type Microseconds } from '@fadenweg/core/units';
import { touchedBy } from '@fadenweg/core/touched';
import { MARK } from '@fadenweg/core/path';
import { labelIn, type DeclarationRepository } from '../declared/declarations.ts';
import { strandId, type IdentifierRepository } from '../evidence/identifiers.ts';
import { recordKey } from '../evidence/record-key.ts';
import type { AskedWindow } from '../platform/http/windows.ts';
import type { StrandService } from '../strands/strand-service.ts';
import type { StrandRow } from '../weaving/strand-rows.ts';
import type { TouchedRow } from '../weaving/touched-layout.ts';
import type { DataRepository, SetKey, SetRow, Touching } from './data-rows.ts';

const MOST_SETS = 500;
const MOST_RUNS = 200;
/** Of those that came after a run, so many are told. */
const MOST_AFTER = 50;
/** So far back an input is compared. */
const LOOKED = 40;
/** From so many different inputs in a row on, the same once more is none by chance. */
const DIFFERENT = 5;

/** Files, tables and feeds that runs read and write: who does, when it was written last, and what came after. */
export class DataService {
  constructor(
    private readonly rows: DataRepository,
    private readonly strands: StrandService,
    private readonly declarations: DeclarationRepository,
    private readonly identifiers: IdentifierRepository,
  ) {}

  async list({ from, to, environment }: AskedWindow): Promise<DataSet[]> {
    return this.told(await this.rows.sets(from, to, environment, null, MOST_SETS), to);
  }

  /** null where nothing touched it in the window. */
  async one(key: SetKey, { from, to }: AskedWindow): Promise<DataSetHistory | null> {
    const [set] = await this.told(await this.rows.sets(from, to, [key.environment], key, 1), to);
    if (!set) return null;
    const [writes, reads] = await Promise.all([true, false].map((way) => this.rows.touching(key, way, from, to, MOST_RUNS + 1)));
    const told = await this.runs([...writes!.slice(0, MOST_RUNS), ...reads!.slice(0, MOST_RUNS)]);
    const many = Math.min(MOST_RUNS, writes!.length);
    return { set, writes: told.slice(0, many), reads: told.slice(many), cut: writes!.length > MOST_RUNS || reads!.length > MOST_RUNS };
  }

  /** What a strand touched; of one that is no run, by its records now. */
  async of(row: StrandRow): Promise<StrandData[]> {
    const kept = await this.rows.ofStrand(row.founder);
    const touched = kept.length > 0 ? kept : await this.byRecords(row);
    const reading = touched.filter(({ writes }) => writes === 0);
    const brought = await this.rows.lastWrites(reading.map(({ name, environment, at }) => ({ name, environment, before: at })));
    const keys = await this.recordKeys(row, touched);
    return Promise.all(
      touched.map(async (one): Promise<StrandData> => {
        const by = one.writes === 0 ? (brought[reading.indexOf(one)] ?? null) : null;
        // another strand's: what a run wrote itself and reads again brought nothing
        const other = by && by.founder !== row.founder ? by : null;
        const after = one.writes === 1 ? await this.after(one) : [];
        const same = one.writes === 0 && kept.length > 0 && row.flow !== null ? await this.sameInput(one, row) : null;
        const [told, ...later] = await this.runs([other, ...after.slice(0, MOST_AFTER), same].filter((run) => run !== null));
        const all = [...(told ? [told] : []), ...later];
        const broughtBy = other ? all.shift()! : null;
        const sameAs = same ? all.pop()! : null;
        return {
          way: one.writes === 1 ? 'writes' : 'reads',
          name: one.name,
          kind: one.kind as DataKindName,
          environment: one.environment,
          instance: one.instance,
          at: isoMicros(one.at),
          rows: one.rows,
          failed: one.failed === 1,
          record: keys.get(one.record) ?? '',
          broughtBy,
          after: all,
          afterCut: after.length > MOST_AFTER,
          sameAs,
        };
      }),
    );
  }

  /** Who read what a run wrote before it was written again, in order of time. */
  private async after(one: TouchedRow): Promise<Touching[]> {
    const next = (await this.rows.nextWrite(one, one.last_at)) ?? Number.MAX_SAFE_INTEGER;
    const readers = await this.rows.touching(one, false, one.at, next, MOST_AFTER + 1);
    return readers.filter(({ founder }) => founder !== one.founder).reverse();
  }
  /** The earlier run of its flow with the very same input, where inputs are other ones each time: told by the name of the file. */
  private async sameInput(one: TouchedRow, row: StrandRow): Promise<Touching | null> {
    if (one.instance === '') return null;
    const before = (await this.rows.touching(one, false, 0, one.at, LOOKED)).filter(({ flow, founder }) => flow === row.flow && founder !== row.founder);
    const names = before.map(({ instance }) => instance);
    const others = names.filter((name) => name !== one.instance);
    return others.length >= DIFFERENT && new Set(others).size === others.length ? (before.find(({ instance }) => instance === one.instance) ?? null) : null;
  }

  private async byRecords(row: StrandRow): Promise<TouchedRow[]> {
    const { records } = await this.strands.followed(row);
    return touchedBy(records.map(({ message, shape, marks }) => ({ message, shape, failing: (marks & MARK.failing) !== 0 }))).map((one) => ({
      founder: row.founder,
      environment: row.environment,
      name: one.name,
      kind: one.kind,
      writes: one.way === 'writes' ? 1 : 0,
      instance: one.instance,
      at: records[one.first]!.at,
      last_at: records[one.last]!.at,
      record: Number(records[one.first]!.id.split('-').at(-1)),
      rows: null,
      failed: one.failed ? 1 : 0,
    }));
  }
  /** Where its records stand. */
  private async recordKeys(row: StrandRow, touched: readonly TouchedRow[]): Promise<Map<number, string>> {
    if (touched.length === 0) return new Map();
    const { rows } = await this.strands.followed(row);
    return new Map(rows.map((one) => [one.id, recordKey(one)]));
  }

  private async told(sets: readonly SetRow[], to: Microseconds): Promise<DataSet[]> {
    const declared = await this.declarations.flows();
    const label = labelIn(declared);
    const last = await this.rows.lastWrites(sets.map(({ name, environment }) => ({ name, environment, before: to })));
    const runs = await this.runs(last.filter((one) => one !== null));
    let next = 0;
    const named = (flows: SetRow['writers']) => (flows ?? []).map((one) => ({ ...one, label: label(one.flow) }));
    return sets.map((one, i) => ({
      name: one.name,
      kind: one.kind as DataKindName,
      environment: one.environment,
      writers: named(one.writers),
      readers: named(one.readers),
      lastWritten: last[i] ? runs[next++]! : null,
      usualRows: one.usual,
      failed: one.failed,
      touched: one.touched,
    }));
  }
  private async runs(rows: readonly Touching[]): Promise<TouchingRun[]> {
    if (rows.length === 0) return [];
    const [named, declared] = await Promise.all([this.identifiers.named(rows.map((row) => row.founder)), this.declarations.flows()]);
    const label = labelIn(declared);
    return rows.map((row) => {
      const own = named.get(row.founder);
      return {
        strand: strandId(own?.kind ?? '', own?.scope ?? '', row.value),
        name: row.value,
        flow: row.flow,
        flowLabel: row.flow === null ? '' : label(row.flow),
        outcome: row.outcome as Outcome,
        headline: row.headline,
        at: isoMicros(row.at),
        rows: row.rows,
        failed: row.failed === 1,
        instance: row.instance,
      };
    });
  }
}
