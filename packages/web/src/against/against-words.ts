import type { Against, AgainstCompared, AgainstMeasure } from '@fadenweg/api';
import { OUTCOME_WORDS } from '../glyphs/outcomes.ts';
import { count } from '../time/format.ts';
import { ms } from '../strands/duration-text.ts';

/** What each measure is called beside numbers. */
export const MEASURE_WORDS: Record<AgainstMeasure, string> = {
  amiss: 'ends amiss',
  whole: 'the whole',
  database: 'in databases',
  transit: 'on the way: queues and gaps',
  rest: 'everywhere else',
  here: 'work in it',
};
const LONGER: Record<Exclude<AgainstMeasure, 'amiss'>, string> = {
  whole: 'The whole',
  database: 'Time in databases',
  transit: 'Time on the way (queues and gaps)',
  rest: 'Time everywhere else',
  here: 'Its own work',
};

/** A value of a measure as it is shown. */
export function valueWords(measure: AgainstMeasure, value: number | null): string {
  if (value === null) return '–';
  if (measure !== 'amiss') return ms(value);
  return value === 0 ? 'none' : `${(100 * value).toFixed(value < 0.1 ? 1 : 0)} %`;
}

/** How likely by chance, where something is told. */
export const chanceWords = (chance: number): string =>
  chance < 1e-6 ? 'hardly chance' : `by chance once in ${Math.round(1 / chance).toLocaleString('en')}`;

/** What it is called: "shop 0059", "host app-3", "lens-calc 4.12.0". */
export const nameOf = ({ what, name, of }: Pick<Against, 'what' | 'name' | 'of'>): string => {
  if (what === 'party') return `${of} ${name}`;
  return what === 'version' ? `${of} ${name}` : `${what} ${name}`;
};

/** Whom it is compared with. */
export function othersWords({ what, of, instead, strands }: Pick<Against, 'what' | 'of' | 'instead' | 'strands'>): string {
  if (strands.others === 0) return what === 'version' ? 'no other version' : 'no others: every one of its strands comes this way';
  if (what === 'component') return `those that pass ${(instead ?? []).join(' or ')} instead`;
  if (what === 'host') return 'those that pass other hosts of the same components';
  return what === 'version' ? `other versions of ${of}` : 'all others';
}

const some = (n: number): string => (n === 0 ? 'none' : count(n));
/** What is different, a sentence each, and last what is not: that is innocent. */
export function verdicts({ measures, outcomes, strands }: Pick<Against, 'measures' | 'outcomes' | 'strands'>): string[] {
  const kinds = outcomes.flatMap(({ outcome, own, others, beside }) =>
    outcome === 'done' || beside.is === 'flat' || beside.is === 'few'
      ? []
      : [
          `${beside.is === 'more' ? 'More' : 'Fewer'} are ${OUTCOME_WORDS[outcome]}: ${some(own)} of ${count(strands.own)}, of others ${some(others)} of ${count(strands.others)} (${chanceWords(beside.chance)}).`,
        ],
  );
  const of = (wanted: (one: AgainstCompared) => boolean): string[] =>
    measures.filter(wanted).flatMap((one) => [differs(one, 'beside'), differs(one, 'since')].filter((words) => words !== null));
  const told = [...of((one) => one.measure === 'amiss'), ...kinds, ...of((one) => one.measure !== 'amiss')];
  const flat = measures
    .filter((one) => one.measure !== 'amiss' && one.beside.is === 'flat' && one.since.is !== 'more')
    .map((one) => MEASURE_WORDS[one.measure]);
  const few = measures.every((one) => one.beside.is === 'few' && one.since.is === 'few');
  if (few) return ['Too few to say anything: at least five on each side are needed.'];
  if (told.length === 0) return ['Nothing is different that chance may not have done.'];
  return flat.length === 0 ? told : [...told, `As others, and so not it: ${flat.join('; ')}.`];
}

function differs({ measure, own, others, ownBefore, othersBefore, beside, since }: AgainstCompared, by: 'beside' | 'since'): string | null {
  const { is, chance } = by === 'beside' ? beside : since;
  const against = by === 'beside' ? others : ownBefore;
  if (is !== 'more' && is !== 'less') return null;
  const [mine, theirs] = [valueWords(measure, own), valueWords(measure, against)];
  const than = by === 'beside' ? `others ${theirs}` : `before ${theirs}`;
  const what =
    measure === 'amiss' ? `${is === 'more' ? 'More' : 'Fewer'} end amiss` : `${LONGER[measure]} takes ${is === 'more' ? 'longer' : 'less'}`;
  // what grew for everybody is not about this one
  const all =
    by === 'since' && others !== null && othersBefore !== null && is === 'more' && others > 1.2 * othersBefore ? ', but so it is for others' : '';
  return `${what}: ${mine}, ${than}${all} (${chanceWords(chance)}).`;
}
