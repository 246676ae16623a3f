import { labelOf, patternOfForms } from './forms.ts';
import { numberClasses } from './number-classes.ts';
import { factsOf, piecesOf, type NumberFacts } from './number-facts.ts';
import { isSpoken, type SuggestRecord } from './suggest.ts';
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
/** So many values of what names transactions come again, or stand in what comes again. */
const RECURRING = 0.5;
/** What several components name, of its values at least so many of them. */
const ACROSS = 0.25;
/** What one component names alone counts little. */
const LITTLE = 0.05;
/** Of what long numbers tie together, so much has no more than one value of a kind that names it. */
const ALONE = 0.75;
/** Where so many values are named again much later and are given out in no order, they may be of parties that many share. */
const LASTING = 0.1;
/** They are if so many of these, and no fewer, come with different numbers of other kinds, which stand beside some of them only. */
const PARTED = 0.2;
const FEWEST_PARTED = 5;
/** What names hardly more than one piece each may tie. */
const SINGLE = 0.97;
/** Kinds of one role in a set, at most. */
const MOST_KINDS = 6;

interface Chosen {
  facts: NumberFacts;
  role: Role;
}

/**
 * The set of kinds that names transactions best, where nobody has said yet what people ask by. Long numbers that no two transactions have by chance (of requests, messages, traces) tie records to pieces.
 * What names a piece alone and is given out in order is what people ask by; so is what is given out in no order, as long as it names what nothing else does. What comes again much later with other
 * numbers beside it is shared.
 *
 * @param records in stretches that follow each other in time, with the values that known kinds find in them
 * @returns null where nothing of the kind shows
 */
export function bestSet(records: readonly SuggestRecord[]): BestSet | null {
  const classes = numberClasses(records, FEWEST);
  const pieces = piecesOf(records, classes);
  const all = classes
    .filter(({ form }) => isSpoken(form) && !/^[xh]+$/.test(form))
    .map((one) => factsOf(one, records, pieces))
    .filter((one) => one.alone >= ALONE && one.recurring >= RECURRING && (tells(one) || one.across >= ACROSS))
    .sort((a, b) => weight(b) - weight(a) || Number(b.rises) - Number(a.rises) || (a.of.key < b.of.key ? -1 : 1));
  const chosen = chosenOf(all);
  const naming = chosen.filter((one) => one.role === 'business').map((one) => one.facts);
  if (naming.length === 0) return null;
  const covered = new Set(naming.flatMap((one) => [...one.byPiece.keys()]));
  const within = records.map((_, place) => covered.has(pieces.of(place)));
  const names = new Set<string>();
  return {
    kinds: chosen.map(({ facts, role }) => kindOf(facts, role, names)),
    examples: chosen.map(({ facts }) => facts.of.spellings[0]!.texts[0]!),
    transactions: Math.max(...naming.map((one) => one.of.values.size)),
    components: [...new Set(records.filter((_, place) => within[place]).map((one) => one.component))].sort(),
    share: within.filter((one) => one).length / Math.max(1, records.length),
  };
}

/** Letters of its own: what is written in digits alone is as likely a count. */
const tells = ({ of }: NumberFacts): boolean => of.spellings[0]!.texts.some((text) => /\p{L}/u.test(text));
const weight = ({ named, across }: NumberFacts): number => named * (LITTLE + across);

function chosenOf(all: readonly NumberFacts[]): Chosen[] {
  const doubtful = (one: NumberFacts): boolean => !one.rises && one.far.length > LASTING * one.again * one.of.values.size;
  const firm = all.filter((one) => !doubtful(one));
  const parties = all.filter((one) => doubtful(one) && isParty(one, firm));
  const chosen: Chosen[] = [];
  const taken = new Set<string>();
  const named = new Set<number>();
  const choose = (facts: NumberFacts, role: Role): void => {
    const known = [...facts.of.values.keys()].filter((value) => taken.has(value)).length;
    if (chosen.filter((one) => one.role === role).length >= MOST_KINDS || known > facts.of.values.size / 2) return;
    for (const value of facts.of.values.keys()) taken.add(value);
    if (role === 'business') for (const piece of facts.byPiece.keys()) named.add(piece);
    chosen.push({ facts, role });
  };
  for (const one of all) {
    if (parties.includes(one)) continue;
    const known = [...one.byPiece.keys()].filter((piece) => named.has(piece)).length;
    if (one.rises || known < one.byPiece.size / 2) choose(one, 'business');
    else if (one.of.by === 'form' && one.single >= SINGLE) choose(one, 'link');
  }
  for (const one of parties) if (one.of.by === 'form' && one.across >= ACROSS) choose(one, 'shared');
  return chosen;
}

/** What comes again much later comes with other numbers of the kinds that name something then. */
function isParty(one: NumberFacts, firm: readonly NumberFacts[]): boolean {
  const far = new Set(one.far);
  const met = new Set<string>();
  const parted = new Set<string>();
  for (const other of firm) {
    const beside = new Map<string, string>();
    for (const [piece, values] of one.byPiece)
      for (const value of values) {
        if (!far.has(value)) continue;
        for (const number of other.byPiece.get(piece) ?? []) {
          met.add(value);
          if ((beside.get(value) ?? number) !== number) parted.add(value);
          beside.set(value, number);
        }
      }
  }
  return met.size >= FEWEST_PARTED && parted.size >= PARTED * met.size;
}

function kindOf({ of: { by, field, spellings, fields, exact } }: NumberFacts, role: Role, taken: Set<string>): IdentifierKind {
  const { texts } = spellings[0]!;
  const named = [...fields].sort(([, a], [, b]) => b - a).map(([name]) => name);
  const label = labelOf(texts[0]!, named.length > 0 ? named : [field]);
  const plain = label.toLowerCase().replace(/[^a-z0-9]+/g, '-').replace(/^-|-$/g, '') || 'number'; // prettier-ignore
  let name = plain;
  for (let i = 2; taken.has(name); i++) name = `${plain}-${i}`;
  taken.add(name);
  const patterns = spellings.map((one) => patternOfForms(one.texts, exact));
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
