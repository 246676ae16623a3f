import { Random } from '../writing/random.ts';
import { SECOND } from '../writing/times.ts';
import { drawnTime } from './time-layouts.ts';
import type { ChanceWorld } from './types.ts';
import { ACTS, inventedWord, phrasesOf } from './words.ts';

/** What must not matter: words that nobody knows, no levels, other names of components, other times, a clock that is off. */
export const ALTERATIONS = ['words', 'levels', 'names', 'times', 'clock'] as const;
export type Alteration = (typeof ALTERATIONS)[number];

/** Changes how a world writes before it runs; what happens in it stays the same. */
export function alter(world: ChanceWorld, how: Alteration): void {
  const random = new Random(world.seed ^ 0x2545f491);
  const strange = phrasesOf('invented too', random);
  const [, second] = world.hosts;
  for (const component of world.components) {
    if (how === 'words') for (const act of ACTS) component.phrases[act] = strange[act][0]!;
    if (how === 'levels') component.levels = null;
    if (how === 'names') component.name = `${inventedWord(random, 3)}-${component.name.slice(component.name.lastIndexOf('-') + 1)}`;
    if (how === 'times' && (component.layout === 'text' || component.layout === 'csv')) component.time = drawnTime(random);
  }
  // the first host's clock is what others are measured by
  if (how === 'clock' && second) for (const span of second.clock) span.ahead += 3 * SECOND;
}
