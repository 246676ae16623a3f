/**
 * How sure findings are: how often what is said names the right component, by what supports it. Counted over the first findings of 40 drawn and parcels' worlds and the
 * permit office (seeds for choosing; docs/decisions/verdicts.md), not over the two worlds of our own, where nearly all are right.
 */
/** It rests on what people declared. */
export const DECLARED = 0.94;
/** A record says so that no good leg has, and another component bears it out: it gave up, or waited for that. */
export const BORNE_OUT = 0.94;
/** A record says so that no good leg has, alone. */
export const SAID = 0.86;
/** A number departs from what it usually is, or the end was different from that of good ones before it fell silent. */
export const DIFFERS = 0.75;
/** What took so long says nothing else than in good legs. */
export const LASTED = 0.68;
/** It ended where good ones go on: where it was lost nobody says. */
export const SILENT = 0.64;
/** It was done twice: whoever sent it twice may be an earlier one. */
export const TWICE = 0.5;
/** It may well have gone on unseen. */
export const UNSEEN = 0.5;
