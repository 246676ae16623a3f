import {
  durationOf,
  isOwn,
  levelIndex,
  literalsOf,
  numberOf,
  timeOf,
  type Condition,
  type Literals,
  type Operator,
  type Search,
  type Value,
} from '@fadenweg/core/search';
import { weightIndex, weightSql, type Weight } from '@fadenweg/core/weights';
import { FOUNDER } from '../evidence/identifiers.ts';

/**
 * A condition of SQL over the rows of `record r` that leaves out no record which a search finds. It narrows; core decides.
 * `exact`: it holds for just those, so that its negation narrows too.
 */
export interface Narrowing {
  sql: string;
  bindings: unknown[];
  exact: boolean;
}
/** Numbers of names, and which names are kinds of identifiers. */
export interface NarrowingNames {
  component(name: string): number | undefined;
  host(name: string): number | undefined;
  isKind(name: string): boolean;
  /** What people say weighs how much. */
  weights: readonly { search: Search; weight: Weight }[];
  /** Parameters of shapes that have names, by these. */
  parameters: ReadonlyMap<string, readonly { component: string; text: string }[]>;
}

/** Outcomes of few strands: their records are told by whom they are at home with. */
const RARE = new Set(['failed', 'stalled', 'odd', 'doubled', 'slow', 'refused', 'running', 'out-of-sight']);

const TIED = 'select t.key from strand s join tie t on t.founder = s.founder where s.outcome = ?';

const ANY: Narrowing = { sql: 'true', bindings: [], exact: false };
const NONE: Narrowing = { sql: 'false', bindings: [], exact: true };
const exactly = (sql: string, ...bindings: unknown[]): Narrowing => ({ sql, bindings, exact: true });

/** By whose strand it is, a record is of a flow or an outcome. */
const ofStrand = (column: 'flow' | 'outcome', value: string): Narrowing =>
  exactly(`exists (select 1 from (${FOUNDER}) t join strand s on s.founder = t.founder where t.valid_to >= r.at and s.${column} = ?)`, value);

export function narrow(search: Search, names: NarrowingNames): Narrowing {
  const parts = search.words.map((word) => ofWord(word.text));
  if (search.condition) parts.push(ofCondition(search.condition, names));
  return both(parts);
}

/** What fits all of these; everything where there are none. */
export function both(parts: readonly Narrowing[]): Narrowing {
  const real = parts.filter((part) => part !== ANY);
  if (real.length === 0) return parts.length === 0 ? exactly('true') : ANY;
  return {
    sql: `(${real.map((part) => part.sql).join(' and ')})`,
    bindings: real.flatMap((part) => part.bindings),
    exact: parts.every((part) => part.exact),
  };
}
/** What fits any of these; nothing where there are none. */
export function either(parts: readonly Narrowing[]): Narrowing {
  if (parts.length === 0) return NONE;
  if (parts.includes(ANY)) return ANY;
  return {
    sql: `(${parts.map((part) => part.sql).join(' or ')})`,
    bindings: parts.flatMap((part) => part.bindings),
    exact: parts.every((part) => part.exact),
  };
}
const negated = (part: Narrowing): Narrowing => (part.exact ? { ...part, sql: `(not ${part.sql})` } : ANY);

/** Shortest piece of a word that is worth looking for. */
const SHORTEST = 3;

/**
 * Of a word in ASCII the database and core think alike (`containedIn`): it folds in the "C" collation, five times as fast as in another, and compares
 * what is folded, twice as fast as without regard to case. The index of words is on the same expression.
 * Of another word, whose letters the database folds in ways of its own, the longest piece in ASCII narrows.
 * Folding is the dearest part of it: what a number's digits rule out is not folded.
 */
function ofWord(word: string): Narrowing {
  const longest = longestOf(word.match(/[\x20-\x7e]+/g));
  const whole = longest.length === word.length;
  if (!whole && longest.length < SHORTEST) return ANY;
  const folded = { sql: 'lower(r.message collate "C") like ?', bindings: [containing(longest.toLowerCase())], exact: whole };
  const caseless = longestOf(longest.match(/[^A-Za-z]+/g));
  if (caseless.length < SHORTEST) return folded;
  return { ...folded, sql: `(r.message collate "C" like ? and ${folded.sql})`, bindings: [containing(caseless), ...folded.bindings] };
}
const longestOf = (pieces: readonly string[] | null): string =>
  (pieces ?? []).reduce((best, piece) => (piece.length > best.length ? piece : best), '');
const containing = (text: string): string => `%${text.replace(/[%_\\]/g, '\\$&')}%`;

function ofCondition(condition: Condition, names: NarrowingNames): Narrowing {
  switch (condition.type) {
    case 'and':
      return both(condition.parts.map((part) => ofCondition(part, names)));
    case 'or':
      return either(condition.parts.map((part) => ofCondition(part, names)));
    case 'not':
      if (condition.part.type === 'null' && condition.part.field.name !== 'took') return present(condition.part.field.name, names);
      return negated(ofCondition(condition.part, names));
    case 'compare':
      return ofCompare(condition.field.name, condition.op, condition.value, names);
    case 'between':
      return both([ofCompare(condition.field.name, '>=', condition.low, names), ofCompare(condition.field.name, '<=', condition.high, names)]);
    case 'in':
      return either(condition.values.map((value) => ofCompare(condition.field.name, '=', value, names)));
    case 'like':
      return condition.field.name === 'message' && !/[\\_]/.test(condition.pattern.text)
        ? exactly('r.message like ?', condition.pattern.text)
        : holding(condition.field.name, ofLike(condition.pattern.text), names);
    case 'matches':
      return holding(condition.field.name, literalsOf(condition.pattern.text), names);
    case 'null':
      return condition.field.name === 'took' ? exactly('r.took is null') : ANY;
  }
}

function ofCompare(name: string, op: Operator, value: Value, names: NarrowingNames): Narrowing {
  const plain = value.text !== '' && Number.isNaN(numberOf(value.text));
  if (op === '<>') return negated(name === 'outcome' && plain ? ofStrand(name, value.text) : ofCompare(name, '=', value, names));
  if (name === 'level') {
    const level = levelIndex(value.text);
    return level < 0 ? NONE : exactly(`r.level ${op} ?`, level);
  }
  if (name === 'took') return numeric('r.took', op, durationOf(value.text));
  if (name === 'time') return numeric('r.at', op, timeOf(value.text));
  const weight = name === 'weight' ? weightIndex(value.text) : -1;
  if (weight >= 0) return ofWeight(op, weight, names);
  if (name === 'weight') return field(name, names);
  // a field may have that name too, but hardly that number: what holds both is looked at
  if (name === 'fault' && op === '=' && /^\d{1,16}$/.test(value.text)) return either([ofFault(value.text), field(name, names)]);
  if (op !== '=' || !Number.isNaN(numberOf(value.text))) return present(name, names);
  if (!plain) return isOwn(name) ? NONE : present(name, names);
  if (name === 'component' || name === 'host') {
    const id = names[name](value.text);
    return id === undefined ? NONE : exactly(`r.${name}_id = ?`, id);
  }
  if (name === 'environment') return exactly('r.source_id in (select id from source where environment = ?)', value.text);
  if (name === 'source') return exactly('r.source_id in (select id from source where path = ?)', value.text);
  if (name === 'outcome' && RARE.has(value.text))
    return {
      sql: `(r.home in (${TIED}) or (r.home is null and r.lane is not null and exists (select 1 from carried c where c.at = r.at and c.id = r.id and c.home in (${TIED}))))`,
      bindings: [value.text, value.text],
      exact: false,
    };
  if (name === 'flow' || name === 'outcome') return ofStrand(name, value.text);
  if (name === 'shape') return ofShape(value.text);
  if (name === 'logger') return exactly('r.logger = ?', value.text);
  return present(name, names);
}

const COMPARE: Readonly<Record<string, (a: number, b: number) => boolean>> = { '=': (a, b) => a === b, '<': (a, b) => a < b, '<=': (a, b) => a <= b, '>': (a, b) => a > b, '>=': (a, b) => a >= b }; // prettier-ignore
/** As it was read; what people say of it comes before that. */
function ofWeight(op: Operator, weight: number, names: NarrowingNames): Narrowing {
  const read = exactly(`${weightSql('r.marks')} ${op} ?`, weight);
  if (names.weights.length === 0) return read;
  const said = names.weights.filter((one) => COMPARE[op]!(one.weight, weight)).map((one) => ({ ...narrow(one.search, names), exact: false }));
  return either([{ ...read, exact: false }, ...said]);
}
/** What has ‹› in it stands for other texts too. */
const ofShape = (text: string): Narrowing =>
  text.includes('‹›')
    ? { sql: 'r.shape in (select id from shape where text = ? or text like ?)', bindings: [text, likeShape(text)], exact: false }
    : exactly('r.shape in (select id from shape where text = ?)', text);
const likeShape = (text: string): string => text.replace(/[%_\\]/g, '\\$&').replaceAll('‹›', '%');
const ofFault = (number: string): Narrowing =>
  exactly('exists (select from fault_record q where q.at = r.at and q.id = r.id and q.fault = ?)', number);
const numeric = (column: string, op: Operator, value: number): Narrowing =>
  Number.isNaN(value) ? NONE : exactly(`coalesce(${column} ${op} ?::float8, false)`, value);

/** The record has the field at all: all that a comparison needs at least. */
function present(name: string, names: NarrowingNames): Narrowing {
  return isOwn(name) ? ANY : field(name, names);
}
function field(name: string, names: NarrowingNames): Narrowing {
  if (/["\\%]/.test(name)) return ANY;
  const field = { sql: 'r.attributes::text like ?', bindings: [`%${name.replaceAll('_', '\\_')}":%`], exact: false };
  const own = names.isKind(name) ? { ...field, sql: `(r.keys is not null or ${field.sql})` } : field;
  const parameters = (names.parameters.get(name) ?? []).flatMap(({ component, text }): Narrowing[] => {
    const id = names.component(component);
    return id === undefined
      ? []
      : [{ sql: '(r.component_id = ? and r.shape in (select id from shape where text like ?))', bindings: [id, likeShape(text)], exact: false }];
  });
  return parameters.length === 0 ? own : either([own, ...parameters]);
}

/** What the text of a field must hold. */
type Held = ReturnType<typeof literalsOf>;

/** The record has the field, and what a pattern needs stands in it; of parsed fields, somewhere among them. */
function holding(name: string, held: Held, names: NarrowingNames): Narrowing {
  const there = present(name, names);
  const written = WRITTEN[name] ?? (isOwn(name) ? null : OF_FIELDS);
  if (held === null || written === null || (written === OF_FIELDS && (names.isKind(name) || names.parameters.has(name)))) return there;
  const part = holds(written, held.folded, held.needed);
  if (part === ANY) return there;
  return there === ANY ? part : both([there, part]);
}

/** Where a text stands, and as what. */
interface Written {
  sql: string;
  /** What of a text stands there as it is. */
  plain(text: string): string;
  /** There is an index of words on its folded text. */
  indexed: boolean;
}
const OF_FIELDS: Written = { sql: 'r.attributes::text', plain: (text) => longestOf(text.match(/[ !#-[\]-~]+/g)), indexed: false };
const WRITTEN: Readonly<Record<string, Written>> = {
  message: { sql: 'r.message', plain: (text) => text, indexed: true },
  logger: { sql: 'r.logger', plain: (text) => text, indexed: false },
};

function holds(written: Written, folded: boolean, needed: Literals): Narrowing {
  if (typeof needed !== 'string') return (needed.of === 'all' ? both : either)(needed.parts.map((part) => holds(written, folded, part)));
  const text = written.plain(needed);
  if (text.length < SHORTEST_HELD) return ANY;
  const lower = { sql: `lower(${written.sql} collate "C") like ?`, bindings: [containing(text.replace(/[A-Z]+/g, (letters) => letters.toLowerCase()))], exact: false }; // prettier-ignore
  if (folded) return lower;
  const asIs = { sql: `${written.sql} collate "C" like ?`, bindings: [containing(text)], exact: false };
  return written.indexed && text.length >= SHORTEST ? both([asIs, lower]) : asIs;
}
const SHORTEST_HELD = 2;

/** What stands between the signs that stand for others. */
function ofLike(pattern: string): Held {
  if (pattern.includes('\\')) return null;
  const parts = pattern.split(/[%_]+/).filter((part) => part.length >= SHORTEST_HELD);
  return parts.length === 0 ? null : { folded: false, needed: { of: 'all', parts: parts.slice(0, MOST_PARTS) } };
}
const MOST_PARTS = 8;
