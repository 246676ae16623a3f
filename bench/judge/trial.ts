import { offered, understand, type Declared, type Understanding } from '@fadenweg/core/understanding';
import { Judge, type Share, type TrueTransaction } from '@fadenweg/standin';
import { LEVELS } from '@fadenweg/core/units';
import { STANDARD_KINDS } from '@fadenweg/core/identifiers';
import { inPlaces, type InPlaces } from './told.ts';
import { declaring, type JudgedWorld } from './world.ts';

export interface Trial {
  name: string;
  judge: Judge;
  understood: Understanding;
  /** What whoever looks for the first record of level error would find: how often it is of a right component. */
  firstError: Share;
  ms: number;
}

/**
 * Understands a world from its files alone and judges what came of it.
 *
 * @param newcomer nothing is declared, and the set of kinds that the product offers is accepted
 */
export async function trial(world: JudgedWorld, newcomer = false): Promise<Trial> {
  const began = performance.now();
  const understood = await understand(world.files, newcomer ? await accepted(world) : world.declared);
  const ms = performance.now() - began;
  const told = inPlaces(understood);
  const truth = world.truth(told);
  const judge = new Judge(truth, told.strands, told.shownAt, world.neutral);
  return { name: world.name, judge, understood, firstError: firstErrors(truth, told), ms };
}

async function accepted({ files }: JudgedWorld): Promise<Declared> {
  const before = declaring([]);
  const best = await offered((await understand(files, before)).records, STANDARD_KINDS);
  return declaring(best?.kinds ?? []);
}

const ERROR = LEVELS.indexOf('error');
function firstErrors(truth: readonly TrueTransaction[], told: InPlaces): Share {
  const share = { right: 0, all: 0 };
  for (const { cause, legs } of truth) {
    if (!cause) continue;
    const records = legs.flat().flatMap((place) => told.recordAt(place) ?? []);
    const errors = records.filter((one) => one.level >= ERROR).sort((a, b) => a.at - b.at || a.id - b.id);
    share.all++;
    if (errors[0] && cause.components.includes(errors[0].component)) share.right++;
  }
  return share;
}
