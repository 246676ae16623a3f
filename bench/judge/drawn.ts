import { generateChance } from '@fadenweg/standin';
import { declaring, type JudgedWorld } from './world.ts';

/** A world by chance. */
export function drawn(seed: number, transactions: number): JudgedWorld {
  const { files, truth, kinds, world, tied } = generateChance(seed, transactions);
  return {
    name: `drawn ${seed} (${world.language}, ${world.components.length} components, ${tied.toFixed(2)} tied)`,
    files,
    declared: declaring(kinds),
    truth: () => truth,
  };
}
