import type { FlowDeclaration, IdentifierKind, Meaning } from '@fadenweg/api';
import type { MeaningRule } from '@fadenweg/core';
import type { Database } from '../database/connect.ts';
import type { Declarations } from '../intake/batch.ts';

export interface StoredKind extends IdentifierKind {
  id: number;
}

/** Identifier kinds, flows and meanings: what is declared about the data, as data. */
export class DeclarationRepository {
  constructor(private readonly db: Database) {}

  async kinds(): Promise<StoredKind[]> {
    const rows: { id: number; definition: IdentifierKind; supplied: boolean }[] = await this.db('identifier_kind').where({ retired: false }).orderBy('id').select('id', 'definition', 'supplied');
    return rows.map(({ id, definition, supplied }) => ({ ...definition, id, supplied }));
  }

  /** A kind that was taken away comes back under its old number, so that keys stay what they were. */
  async saveKind(kind: IdentifierKind, who: string): Promise<void> {
    const definition = JSON.stringify({ ...kind, supplied: undefined });
    await this.db('identifier_kind')
      .insert({ name: kind.name, definition, changed_by: who })
      .onConflict('name')
      .merge({ definition, retired: false, changed_by: who, changed_at: this.db.fn.now() });
  }

  async retireKind(name: string, who: string): Promise<boolean> {
    return (await this.db('identifier_kind').where({ name, retired: false }).update({ retired: true, changed_by: who, changed_at: this.db.fn.now() })) > 0;
  }

  async flows(): Promise<(FlowDeclaration & { usualUs: number | null })[]> {
    const rows: { definition: FlowDeclaration; usual_us: number | null }[] = await this.db('flow').orderBy('name').select('definition', 'usual_us');
    return rows.map(({ definition, usual_us }) => ({ ...definition, usualUs: usual_us }));
  }

  async saveFlow(flow: FlowDeclaration, who: string): Promise<void> {
    await this.db('flow').insert({ name: flow.name, definition: JSON.stringify(flow), changed_by: who })
      .onConflict('name').merge({ definition: JSON.stringify(flow), changed_by: who, changed_at: this.db.fn.now() });
  }

  async meanings(): Promise<Meaning[]> {
    const rows: MeaningRule[] = await this.db('meaning').orderBy('id').select('component', 'contains', 'means');
    return rows;
  }

  async replaceMeanings(meanings: Meaning[], who: string): Promise<void> {
    await this.db.transaction(async (trx) => {
      await trx('meaning').delete();
      if (meanings.length > 0) await trx('meaning').insert(meanings.map((meaning) => ({ ...meaning, changed_by: who })));
    });
  }

  async forReading(): Promise<Declarations> {
    const kinds = await this.kinds();
    return { kinds, kindIds: kinds.map((kind) => kind.id), rules: await this.meanings() };
  }
}
