import type { RouteLocationRaw } from 'vue-router';

/** One step of the demo's first walk: where it goes, what there is to see, and what one does there. */
export interface WalkStep {
  title: string;
  text: string;
  to: RouteLocationRaw;
  /** The address at which the step is reached. */
  reached(route: { name: unknown; query: Readonly<Record<string, unknown>> }): boolean;
}
/** The demo's day, as the window and environment of an address. */
const DAY = { w: '2026-11-23T23:00:00.000Z~2026-11-24T23:00:00.000Z', e: 'lens works' };
const QUARTER = { w: '2026-11-24T09:35:00.000Z~2026-11-24T09:44:00.000Z', e: 'lens works' };
const at = (name: string) => (route: { name: unknown }) => route.name === name;

/** From what departs from the usual to the text for a ticket, on the demo's day. */
export const FIRST_WALK: readonly WalkStep[] = [
  {
    title: 'What is unusual?',
    text: 'Each flow and job is a column, time runs down, and only what departs from the usual of such an hour is marked. Beside it stands the gravest first, with whom it concerns and what changed before it.',
    to: { name: 'rounds', query: DAY },
    reached: at('rounds'),
  },
  {
    title: 'The orders that failed in a quarter of an hour',
    text: 'Each line says what went wrong. Open the first lens order: a click, or j and then o.',
    to: { name: 'strands', query: { ...QUARTER, outcome: 'failed', flow: 'lens-order', sort: 'started' } },
    reached: at('strands'),
  },
  {
    title: 'Where it broke, and why',
    text: 'The sentence on top is the answer: which component gave up, what it had waited for, and who held it. Below, each record has its stitch in its component’s lane. Press ] for the knot, and o for the record behind a line.',
    to: { name: 'strands', query: { ...QUARTER, outcome: 'failed', flow: 'lens-order', sort: 'started' } },
    reached: at('strand'),
  },
  {
    title: 'All errors as a short list',
    text: 'Each failed strand counts at exactly one fault: since when, which versions, whom it hits more than others, and whether somebody has it in hand.',
    to: { name: 'faults', query: DAY },
    reached: at('faults'),
  },
  {
    title: 'Records without a number',
    text: 'Words, then conditions after “where”. Values beside the list narrow it by a click, and the time rail by dragging.',
    to: { name: 'find', query: { ...DAY, q: "'canceling statement'" } },
    reached: at('find'),
  },
  {
    title: 'Hand it over',
    text: 'In any view c copies a link to exactly this, and on a strand y copies a text for the ticket: the sentence, its proof, what to ask next. That was the walk; ? lists all keys, Ctrl K finds any command.',
    to: { name: 'strands', query: { ...QUARTER, outcome: 'failed', flow: 'lens-order', sort: 'started' } },
    reached: () => false,
  },
];
