import { understand, type Understanding } from '@fadenweg/core/understanding';
import { Judge } from '@fadenweg/standin';
import { inPlaces } from './told.ts';
import type { JudgedWorld } from './world.ts';

export interface Trial {
  name: string;
  judge: Judge;
  understood: Understanding;
  ms: number;
}

/** Understands a world from its files alone and judges what came of it. */
export async function trial(world: JudgedWorld): Promise<Trial> {
  const began = performance.now();
  const understood = await understand(world.files, world.declared);
  const ms = performance.now() - began;
  const told = inPlaces(understood);
  return { name: world.name, judge: new Judge(world.truth(told), told.strands, told.shownAt, world.neutral), understood, ms };
}
