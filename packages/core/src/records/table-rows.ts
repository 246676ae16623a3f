import { areSnapshots, ENOUGH_ROWS, type TableRow } from '../reading/snapshots.ts';
import type { Draft } from '../reading/types.ts';

/** The first rows of a table, by which is told whether they are states that were seen at an instant. */
export class TableRows {
  private rows: TableRow[] = [];

  /** @param known what was told of the source's earlier batches */
  constructor(private known: boolean | undefined) {}

  note({ at, fields, understood }: Draft): void {
    if (this.known !== undefined || !understood) return;
    this.rows.push({ at, fields: { ...fields } });
    if (this.rows.length >= ENOUGH_ROWS) this.decide();
  }
  /** Whether they are, undefined where nothing is told yet. @param last nothing more comes */
  told(last: boolean): boolean | undefined {
    if (last && this.known === undefined && this.rows.length > 0) this.decide();
    return this.known;
  }

  private decide(): void {
    this.known = areSnapshots(this.rows);
    this.rows = [];
  }
}
