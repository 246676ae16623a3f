import { Sheet } from './sheet.ts';
import type { Place, ToldFinding, ToldStrand, TrueTransaction } from './true-transaction.ts';

/** A transaction that came out otherwise, for whoever looks into it. */
export interface Miss {
  id: string;
  fault: string | null;
  f1: number;
  why: string;
}

/** Outcomes of what has not departed. */
const FINE = new Set(['done', 'running', 'out-of-sight']);
/** Values are compared without case and punctuation. */
const bare = (value: string): string => value.toLowerCase().replace(/[^\p{L}\p{N}]/gu, '');
const f1 = (right: number, wrong: number, missing: number): number => (right === 0 ? 0 : (2 * right) / (2 * right + wrong + missing));

interface Holding {
  strand: ToldStrand;
  leg: number;
}

/** Compares strands with what really happened: each transaction with the strand, and the leg of it, that hold most of its records. */
export class Judge {
  readonly sheet = new Sheet();
  readonly byFault = new Map<string, Sheet>();
  readonly misses: Miss[] = [];
  private readonly holders = new Map<Place, Holding[]>();
  private readonly groups = new Map<string, Set<Place>>();

  /**
   * @param shownAt where the record of a true place is shown: that which holds its line, or the one that it is a copy of; null where that cannot be told
   * @param neutral by strand, places that are neither right nor wrong for it: another one's that it asks about
   */
  constructor(
    truth: readonly TrueTransaction[],
    told: readonly ToldStrand[],
    private readonly shown: (place: Place) => Place | null = (place) => place,
    private readonly neutral: ReadonlyMap<string, ReadonlySet<Place>> = new Map(),
  ) {
    for (const strand of told) {
      for (const { place, leg } of strand.records) {
        const own = this.holders.get(place);
        if (own) own.push({ strand, leg });
        else this.holders.set(place, [{ strand, leg }]);
      }
    }
    for (const one of truth) {
      const group = this.groups.get(one.strand) ?? new Set<Place>();
      this.groups.set(one.strand, group);
      for (const place of this.shownAll(one.legs.flat())) group.add(place);
    }
    for (const one of truth) this.judge(one);
  }

  private judge(one: TrueTransaction): void {
    const places = this.shownAll(one.legs.flat());
    const strand = this.mostOf(places, ({ strand }) => strand);
    const leg = strand ? this.legHolding(strand, places) : 1;
    const records = strand ? this.recordsOf(one.strand, strand) : 0;
    const sheets = [this.sheet, this.sheetOf(one.fault ?? (one.good ? 'none' : 'of the machine'))];
    const findings = strand ? strand.findings.filter((finding) => !one.byLeg || finding.leg === leg) : [];
    const outcome = !strand ? 'not found' : one.byLeg ? (strand.legs[leg - 1] ?? strand.outcome) : strand.outcome;
    const right = one.outcomes.includes(outcome);
    const own = new Set(strand?.identifiers.map(bare));
    const why: string[] = right ? [] : [`${outcome} instead of ${one.outcomes.join(' or ')}`];
    for (const sheet of sheets) {
      sheet.count('records', records);
      sheet.count('identifiers', one.identifiers.filter((value) => own.has(bare(value))).length, one.identifiers.length);
      for (const places of one.legs) sheet.count('legs', strand ? this.legOf(places, strand) : 0);
      sheet.count('outcomes', right ? 1 : 0);
      if (one.fault !== null) sheet.count('faulty', right ? 1 : 0);
      if (one.good) sheet.count('blamed', strand && !FINE.has(outcome) ? 1 : 0);
    }
    this.judgeCause(one, findings, sheets, why);
    if (why.length > 0 || records < 1) this.misses.push({ id: `${one.id} ${one.kind}`, fault: one.fault, f1: records, why: why.join('; ') });
  }

  private judgeCause({ cause, next, slowIn }: TrueTransaction, findings: readonly ToldFinding[], sheets: readonly Sheet[], why: string[]): void {
    const [first] = findings;
    if (next) for (const sheet of sheets) sheet.count('next', first?.missingNext && next.includes(first.missingNext) ? 1 : 0);
    if (slowIn) for (const sheet of sheets) sheet.count('slowIn', first?.component === slowIn ? 1 : 0);
    if (!cause) return;
    const named = (finding: ToldFinding): boolean => cause.components.includes(finding.component);
    const shown = this.shownAll(cause.records);
    const component = first !== undefined && named(first);
    const record = first !== undefined && shown.has(first.place);
    for (const sheet of sheets) {
      sheet.count('component', component ? 1 : 0);
      sheet.count('record', record ? 1 : 0);
      sheet.count('amongThree', findings.slice(0, 3).some(named) ? 1 : 0);
      if (first) sheet.said(first.confidence, component);
    }
    if (!component) why.push(`cause in ${first?.component ?? 'nothing'} instead of ${cause.components.join(' or ')}`);
    else if (!record) why.push(`by ${first.place} instead of ${[...shown][0]}`);
  }

  private shownAll(places: readonly Place[]): Set<Place> {
    return new Set(places.flatMap((place) => this.shown(place) ?? []));
  }
  /** The strand that holds most of some records. */
  private mostOf(places: ReadonlySet<Place>, of: (holding: Holding) => ToldStrand): ToldStrand | null {
    const counts = new Map<ToldStrand, number>();
    for (const place of places)
      for (const strand of new Set((this.holders.get(place) ?? []).map(of))) counts.set(strand, (counts.get(strand) ?? 0) + 1);
    let best: ToldStrand | null = null;
    for (const [strand, count] of counts) if (!best || count > counts.get(best)!) best = strand;
    return best;
  }
  private legHolding(strand: ToldStrand, places: ReadonlySet<Place>): number {
    const counts = new Map<number, number>();
    for (const { place, leg } of strand.records) if (places.has(place)) counts.set(leg, (counts.get(leg) ?? 0) + 1);
    return [...counts].reduce((best, one) => (one[1] > best[1] ? one : best))[0];
  }
  private recordsOf(group: string, strand: ToldStrand): number {
    const real = this.groups.get(group)!;
    const aside = this.neutral.get(group);
    const told = new Set(strand.records.map((one) => one.place));
    let [right, wrong] = [0, 0];
    for (const place of told) {
      if (real.has(place)) right++;
      else if (!aside?.has(place)) wrong++;
    }
    return f1(right, wrong, real.size - right);
  }
  /** How well a true leg is told by the one that holds most of it. */
  private legOf(of: readonly Place[], strand: ToldStrand): number {
    const places = this.shownAll(of);
    if (!strand.records.some(({ place }) => places.has(place))) return 0;
    const leg = this.legHolding(strand, places);
    const told = new Set(strand.records.filter((one) => one.leg === leg).map((one) => one.place));
    const right = [...told].filter((place) => places.has(place)).length;
    return f1(right, told.size - right, places.size - right);
  }
  private sheetOf(fault: string): Sheet {
    let sheet = this.byFault.get(fault);
    if (!sheet) this.byFault.set(fault, (sheet = new Sheet()));
    return sheet;
  }
}
