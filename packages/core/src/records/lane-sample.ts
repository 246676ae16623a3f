import type { Fields } from '../reading/types.ts';

/** So many records of a source are looked at, from its beginning. */
const MOST = 4000;
const FEWEST = 60;
const MOST_FIELDS = 24;
const LONGEST = 40;
/** Of the records, so many have the field. */
const PRESENT = 0.6;
/** Records of one value, on the average, and values, at least. */
const EACH = 3;
const FEWEST_VALUES = 3;
/** Of the turns to another transaction, so few come back to one before: what is mixed in a lane parts nothing. */
const RETURNS = 0.05;
/** Without it, so many would come back at least: else nothing is mixed in the source. */
const MIXED = 2;

interface Row {
  values: Map<string, string>;
  /** Key of the business identifier by which the record is at home, 0 for none. */
  of: number;
}

/**
 * Looks in a source that tells no thread and no process for a field that parts the work on several transactions as those would: a session, a line, a slot. Its values come again,
 * and between two records of one value about one transaction none is about another.
 */
export class LaneSample {
  private rows: Row[] = [];
  private lanes = 0;

  /** @param known what was told of the source's earlier pieces: the field, '' for none */
  constructor(private known: string | undefined) {}

  note(fields: Fields, of: number, hasLane: boolean): void {
    if (this.known !== undefined) return;
    const values = new Map<string, string>();
    for (const name in fields) {
      const value = String(fields[name]);
      if (values.size < MOST_FIELDS && value.length <= LONGEST && value !== '') values.set(name, value);
    }
    this.rows.push({ values, of });
    if (hasLane) this.lanes++;
    if (this.rows.length >= MOST) this.decide();
  }
  /** The field, '' for none, undefined where nothing is told yet. @param last nothing more comes */
  told(last: boolean): string | undefined {
    if (last && this.known === undefined) this.decide();
    return this.known;
  }

  private decide(): void {
    this.known = this.rows.length < FEWEST || this.lanes > this.rows.length / 2 ? '' : laneFieldOf(this.rows);
    this.rows = [];
  }
}

/** The field that parts best, '' for none. */
function laneFieldOf(rows: readonly Row[]): string {
  const whole = turns(rows, () => '');
  if (whole.returns < RETURNS * MIXED * whole.all) return '';
  const counts = new Map<string, Map<string, number>>();
  for (const { values } of rows) {
    for (const [name, value] of values) {
      const own = counts.get(name) ?? new Map<string, number>();
      counts.set(name, own.set(value, (own.get(value) ?? 0) + 1));
    }
  }
  let best = { name: '', share: RETURNS, named: 0 };
  for (const [name, values] of [...counts].sort(([a], [b]) => (a < b ? -1 : 1))) {
    const named = [...values.values()].reduce((sum, one) => sum + one, 0);
    if (named < PRESENT * rows.length || values.size < FEWEST_VALUES || named < EACH * values.size) continue;
    const { all, returns, apart } = turns(rows, (row) => row.values.get(name));
    // each value is one transaction's alone, or hardly any: then it is a name, or parts nothing
    if (apart === 0 || all < FEWEST_VALUES) continue;
    const share = returns / all;
    if (share < best.share || (share === best.share && named > best.named)) best = { name, share, named };
  }
  return best.name;
}

/** Turns to another transaction within lanes, those of them that come back to one before, and lanes in which there is any. */
function turns(rows: readonly Row[], laneOf: (row: Row) => string | undefined): { all: number; returns: number; apart: number } {
  const lanes = new Map<string, { now: number; before: Set<number> }>();
  const parted = new Set<string>();
  let [all, returns] = [0, 0];
  for (const row of rows) {
    const lane = laneOf(row);
    if (row.of === 0 || lane === undefined) continue;
    const own = lanes.get(lane);
    if (!own) {
      lanes.set(lane, { now: row.of, before: new Set([row.of]) });
      continue;
    }
    if (own.now === row.of) continue;
    all++;
    parted.add(lane);
    if (own.before.has(row.of)) returns++;
    own.now = row.of;
    own.before.add(row.of);
  }
  return { all, returns, apart: parted.size };
}
