import type { Access } from '../platform/access.ts';
import type { FlowDeclaration, IdentifierKind, Meaning } from '@fadenweg/api';
import { isAmiss } from '@fadenweg/core/clocks';
import type { Parted } from '@fadenweg/core/faults';
import type { MeaningRule } from '@fadenweg/core/path';
import { Usual, type FlowUsual } from '@fadenweg/core/usual';
import type { Database } from '../database/connect.ts';
import { transaction } from '../database/transaction.ts';
import { tell } from '../platform/happenings/tell.ts';
import type { Declarations } from '../evidence/batch.ts';
import { ClockRepository, spansOf } from '../evidence/clock-rows.ts';
import { PARTED } from '../evidence/origins.ts';

export type FlowWithUsual = FlowDeclaration & { usualUs: number | null; usual: Usual | null };
export interface StoredKind extends IdentifierKind {
  id: number;
}

/** Whether a kind is looked for in the logs of an environment. */
export const holdsIn = ({ environments }: Pick<IdentifierKind, 'environments'>, environment: string): boolean =>
  environments?.includes(environment) ?? true;

/** Declarations are asked for by every look-up and change rarely: they are kept until they do, the same for all. A failed read is not kept. */
export class KnownDeclarations {
  private kept: { kinds?: Promise<StoredKind[]>; flows?: Promise<FlowWithUsual[]> } = {};

  /** What was declared, or the usual that was learned, has changed: it is read again on the next call. */
  forget(): void {
    this.kept = {};
  }
  keep<Name extends 'kinds' | 'flows'>(
    name: Name,
    read: () => Promise<Awaited<NonNullable<(typeof this.kept)[Name]>>>,
  ): NonNullable<(typeof this.kept)[Name]> {
    const known = this.kept[name];
    if (known) return known;
    const reading = read() as NonNullable<(typeof this.kept)[Name]>;
    this.kept[name] = reading;
    reading.catch(() => this.forget());
    return reading;
  }
}

/** Identifier kinds, flows and meanings: what is declared about the data, as data. */
export class DeclarationRepository {
  constructor(
    private readonly db: Database,
    private readonly known = new KnownDeclarations(),
  ) {}

  kinds(): Promise<StoredKind[]> {
    return this.known.keep('kinds', () => this.readKinds());
  }
  private async readKinds(): Promise<StoredKind[]> {
    const rows: { id: number; definition: IdentifierKind; supplied: boolean }[] = await this.db('identifier_kind')
      .where({ retired: false })
      .orderBy('id')
      .select('id', 'definition', 'supplied');
    return rows.map(({ id, definition, supplied }) => ({ ...definition, id, supplied }));
  }

  /** A kind that was taken away comes back under its old number, so that keys stay what they were. */
  async saveKind(kind: IdentifierKind, access: Access): Promise<void> {
    const definition = JSON.stringify({ ...kind, supplied: undefined });
    await transaction(this.db, async (trx) => {
      await trx('identifier_kind')
        .insert({ name: kind.name, definition, changed_by: access.who })
        .onConflict('name')
        .merge({ definition, retired: false, changed_by: access.who, changed_at: this.db.fn.now() });
      await tell(trx, 'declared', { what: 'kind', name: kind.name, who: access.who });
    });
    this.known.forget();
  }

  /** All names that were ever given to kinds, and what was taken away by somebody. */
  async formerKinds(): Promise<{ names: string[]; rejected: IdentifierKind[] }> {
    const rows: { name: string; definition: IdentifierKind; retired: boolean }[] = await this.db('identifier_kind').select(
      'name',
      'definition',
      'retired',
    );
    return { names: rows.map((row) => row.name), rejected: rows.filter((row) => row.retired).map((row) => row.definition) };
  }

  async retireKind(name: string, access: Access): Promise<boolean> {
    const changed = await transaction(this.db, async (trx) => {
      const rows = await trx('identifier_kind')
        .where({ name, retired: false })
        .update({ retired: true, changed_by: access.who, changed_at: this.db.fn.now() });
      if (rows > 0) await tell(trx, 'declared', { what: 'kind', name, who: access.who });
      return rows;
    });
    this.known.forget();
    return changed > 0;
  }

  async removeFlow(name: string, access: Access): Promise<boolean> {
    const removed = await transaction(this.db, async (trx) => {
      const rows = await trx('flow').where({ name }).delete();
      if (rows > 0) await tell(trx, 'declared', { what: 'flow', name, who: access.who });
      return rows;
    });
    this.known.forget();
    return removed > 0;
  }

  flows(): Promise<FlowWithUsual[]> {
    return this.known.keep('flows', () => this.readFlows());
  }
  private async readFlows(): Promise<FlowWithUsual[]> {
    const rows: { definition: FlowDeclaration; usual_us: number | null; usual: FlowUsual | null }[] = await this.db('flow')
      .orderBy('name')
      .select('definition', 'usual_us', 'usual');
    return rows.map(({ definition, usual_us, usual }) => ({ ...definition, usualUs: usual_us, usual: usual && new Usual(usual) }));
  }

  async saveFlow(flow: FlowDeclaration, access: Access): Promise<void> {
    await transaction(this.db, async (trx) => {
      await trx('flow')
        .insert({ name: flow.name, definition: JSON.stringify(flow), changed_by: access.who })
        .onConflict('name')
        .merge({ definition: JSON.stringify(flow), changed_by: access.who, changed_at: this.db.fn.now() });
      await tell(trx, 'declared', { what: 'flow', name: flow.name, who: access.who });
    });
    this.known.forget();
  }

  async meanings(): Promise<Meaning[]> {
    const rows: MeaningRule[] = await this.db('meaning').orderBy('id').select('component', 'contains', 'means');
    return rows;
  }

  async replaceMeanings(meanings: Meaning[], access: Access): Promise<void> {
    await transaction(this.db, async (trx) => {
      await trx('meaning').delete();
      if (meanings.length > 0) await trx('meaning').insert(meanings.map((meaning) => ({ ...meaning, changed_by: access.who })));
      await tell(trx, 'declared', { what: 'meaning', name: '', who: access.who });
    });
  }

  /** @returns by environment: what was discovered in one concerns no other */
  async forReading(): Promise<(environment: string) => Declarations> {
    const all = await this.kinds();
    const rules = await this.meanings();
    const clocks = (await new ClockRepository(this.db).all())
      .map((clock) => ({ host: clock.host, component: clock.component, spans: spansOf(clock) }))
      .filter(({ spans }) => isAmiss(spans));
    const { rows: parted } = await this.db.raw<{ rows: Parted[] }>(PARTED);
    return (environment) => {
      const kinds = all.filter((kind) => holdsIn(kind, environment));
      return { kinds, kindIds: kinds.map((kind) => kind.id), rules, clocks, parted };
    };
  }
}

/** What people call a flow, by its name; '' stands for none. */
export function labelIn(flows: readonly { name: string; label: string }[]): (flow: string) => string {
  const labels = new Map(flows.map((one) => [one.name, one.label]));
  return (flow) => (flow === '' ? 'of no flow' : (labels.get(flow) ?? flow));
}
