import { labelOf, patternOfForms } from './forms.ts';
import { namesIn, type NameClass } from './name-classes.ts';
import { bare, isSpoken, type SuggestRecord } from './suggest.ts';
import { KEEP, type IdentifierKind, type Role } from './types.ts';

/** Kinds that together name the transactions of a system, and what accepting them is likely to bring, by what was looked at. */
export interface BestSet {
  kinds: IdentifierKind[];
  /** A value of each of them, as it is written. */
  examples: string[];
  /** Transactions that they name. */
  transactions: number;
  components: string[];
  /** Of the records, the share that comes to belong to one of them, 0 to 1. */
  share: number;
}

/** Values from which anything is concluded, at least. */
const FEWEST = 20;
/** Values of what people ask by come again, and in several components, at least so many of them. */
const RECURRING = 0.5;
const ACROSS = 0.25;
/** What one component names alone counts little. */
const LITTLE = 0.05;
/** Of what long numbers tie together, so much has no more than one value of a kind that names it. */
const ALONE = 0.9;
/** What names several pieces, and half of whose values are named over so large a part of what was looked at, is a party that many share: transactions pass. */
const SEVERAL = 1.5;
const LASTING = 0.2;
/** Spellings of one number: so many values of one class are those of the other one, but for case and separators. */
const SPELT = 0.3;
/** A long number that more records name ties nothing. */
const MOST_RECORDS = 60;
/** Kinds of one set, at most. */
const MOST_KINDS = 6;

interface Class extends NameClass {
  /** Classes of the same values in other spellings, this one among them. */
  spellings: { form: string; texts: string[] }[];
  /** By value, the places of the records that name it. */
  values: Map<string, number[]>;
  fields: Map<string, number>;
}

/**
 * The set of kinds that names transactions best, where nobody has said yet what people ask by. Long numbers that no two transactions have by chance (of requests, messages, traces) tie records to pieces;
 * what names a piece alone, comes again and in several components, and can be said aloud, is what people ask by; what names many pieces is shared.
 *
 * @param records in stretches that follow each other in time, with the values that known kinds find in them
 * @returns null where nothing of the kind shows
 */
export function bestSet(records: readonly SuggestRecord[]): BestSet | null {
  const classes = spelt(classesOf(records));
  const pieces = piecesOf(records, classes);
  const all = classes.flatMap((one) => judge(one, records, pieces) ?? []).sort((a, b) => b.weight - a.weight || (a.of.key < b.of.key ? -1 : 1));
  const several = all.filter((one) => one.across >= ACROSS);
  // where nobody else writes the number that people ask by, it is that of whoever does
  const judged = several.some((one) => one.role === 'business')
    ? several
    : [...several, ...all.filter((one) => one.role === 'business' && one.of.by === 'form').slice(0, 1)];
  const chosen: Judged[] = [];
  const taken = new Set<string>();
  for (const one of judged) {
    const known = [...one.of.values.keys()].filter((value) => taken.has(bare(value))).length;
    if (chosen.filter((other) => other.role === one.role).length >= MOST_KINDS || known > one.of.values.size / 2) continue;
    for (const value of one.of.values.keys()) taken.add(bare(value));
    chosen.push(one);
  }
  const business = chosen.filter((one) => one.role === 'business');
  if (business.length === 0) return null;
  const covered = new Set(business.flatMap((one) => [...one.pieces]));
  const within = records.map((_, place) => covered.has(pieces.of(place)));
  const names = new Set<string>();
  return {
    kinds: chosen.map((one) => kindOf(one, names)),
    examples: chosen.map(({ of }) => of.spellings[0]!.texts[0]!),
    transactions: Math.max(...business.map((one) => one.of.values.size)),
    components: [...new Set(records.filter((_, place) => within[place]).map((one) => one.component))].sort(),
    share: within.filter((one) => one).length / Math.max(1, records.length),
  };
}

function classesOf(records: readonly SuggestRecord[]): Class[] {
  const classes = new Map<string, Class>();
  records.forEach((record, place) => {
    const seen = new Set<string>();
    for (const { value, field, classes: own } of namesIn(record)) {
      for (const one of own) {
        if (seen.has(`${one.key}\0${value}`)) continue;
        seen.add(`${one.key}\0${value}`);
        let known = classes.get(one.key);
        if (!known) classes.set(one.key, (known = { ...one, spellings: [], values: new Map(), fields: new Map() }));
        const places = known.values.get(value);
        if (places) places.push(place);
        else known.values.set(value, [place]);
        if (field !== '') known.fields.set(field, (known.fields.get(field) ?? 0) + 1);
      }
    }
  });
  return [...classes.values()].filter((one) => one.values.size >= FEWEST);
}

/** Classes that tell the same values otherwise (small letters, other separators or none) are one. */
function spelt(classes: readonly Class[]): Class[] {
  const found: Class[] = [];
  for (const one of [...classes].sort((a, b) => b.values.size - a.values.size || (a.key < b.key ? -1 : 1))) {
    const own: Class = { ...one, spellings: [{ form: one.form, texts: [...one.values.keys()] }], values: new Map() };
    for (const [value, places] of one.values) own.values.set(bare(value), [...(own.values.get(bare(value)) ?? []), ...places]);
    const same = one.by !== 'form' ? undefined : found.find((other) => other.by === 'form' && commonTo(other, own) >= SPELT * Math.min(other.values.size, own.values.size)); // prettier-ignore
    if (!same) {
      found.push(own);
      continue;
    }
    same.spellings.push(...own.spellings);
    for (const [value, places] of own.values)
      same.values.set(
        value,
        [...(same.values.get(value) ?? []), ...places].sort((a, b) => a - b),
      );
    for (const [field, count] of own.fields) same.fields.set(field, (same.fields.get(field) ?? 0) + count);
  }
  return found;
}
const commonTo = (a: Class, b: Class): number => [...b.values.keys()].filter((value) => a.values.has(value)).length;

/** What long numbers, and links that are known, tie together: records that have one in common are of one piece. */
function piecesOf(records: readonly SuggestRecord[], classes: readonly Class[]): { of(place: number): number } {
  const parent = records.map((_, place) => place);
  const find = (place: number): number => {
    while (parent[place] !== place) place = parent[place] = parent[parent[place]!]!;
    return place;
  };
  const tie = (places: readonly number[]): void => {
    if (places.length <= MOST_RECORDS) for (const place of places) parent[find(place)] = find(places[0]!);
  };
  const known = new Map<string, number[]>();
  records.forEach(({ known: own }, place) => {
    for (const { role, value } of own) if (role === 'link') known.set(value, [...(known.get(value) ?? []), place]);
  });
  for (const places of known.values()) tie(places);
  for (const { form, by, values } of classes) if (by === 'form' && /h{8,}/.test(form)) for (const places of values.values()) tie(places);
  return { of: find };
}

interface Judged {
  of: Class;
  role: Role;
  /** Share of its values that several components name. */
  across: number;
  weight: number;
  pieces: Set<number>;
}
function judge(of: Class, records: readonly SuggestRecord[], pieces: { of(place: number): number }): Judged | null {
  const { values, form } = of;
  if (!isSpoken(form) || /^[xh]+$/.test(form)) return null;
  const byPiece = new Map<number, Set<string>>();
  let [recurring, across, touched, named] = [0, 0, 0, 0];
  for (const [value, places] of values) {
    if (places.length > 1) recurring++;
    if (new Set(places.map((place) => records[place]!.component)).size > 1) across++;
    named += places.length;
    const own = new Set(places.map(pieces.of));
    touched += own.size;
    for (const piece of own) byPiece.set(piece, (byPiece.get(piece) ?? new Set()).add(value));
  }
  const alone = [...byPiece.values()].filter((own) => own.size === 1).length / byPiece.size;
  if (recurring < RECURRING * values.size || alone < ALONE) return null;
  // a few values that come everywhere name places and machines
  const spans = [...values.values()].map((places) => longestWithinOne(places, records)).sort((a, b) => a - b);
  const lasting = spans[spans.length >> 1]! > LASTING * records.length;
  const role: Role = lasting && touched / values.size >= SEVERAL ? 'shared' : 'business';
  const share = across / values.size;
  return { of, role, across: share, weight: named * (LITTLE + share), pieces: new Set(byPiece.keys()) };
}

/** Over how many records a value is named in one component: those of another one may stand elsewhere as long as nobody knows its zone. */
function longestWithinOne(places: readonly number[], records: readonly SuggestRecord[]): number {
  const first = new Map<string, number>();
  let longest = 0;
  for (const place of places) {
    const { component } = records[place]!;
    const begin = first.get(component);
    if (begin === undefined) first.set(component, place);
    else longest = Math.max(longest, place - begin);
  }
  return longest;
}

function kindOf({ of: { by, field, spellings, fields }, role }: Judged, taken: Set<string>): IdentifierKind {
  const { texts } = spellings[0]!;
  const named = [...fields].sort(([, a], [, b]) => b - a).map(([name]) => name);
  const label = labelOf(texts[0]!, named.length > 0 ? named : [field]);
  const plain = label.toLowerCase().replace(/[^a-z0-9]+/g, '-').replace(/^-|-$/g, '') || 'number'; // prettier-ignore
  let name = plain;
  for (let i = 2; taken.has(name); i++) name = `${plain}-${i}`;
  taken.add(name);
  const patterns = spellings.map((one) => patternOfForms(one.texts));
  return {
    name,
    label,
    role,
    patterns: by === 'field' ? [] : by === 'word' ? [`${field}[ :=#]{1,2}(${patterns[0]!})`] : [...new Set(patterns)],
    fields: by === 'field' ? [field] : [],
    normal: spellings.length > 1 ? { ...KEEP, case: 'upper', separators: 'drop' } : KEEP,
    scope: 'global',
    leaseMs: null,
  };
}
