import { readFile, mkdir, rm } from 'node:fs/promises';
import { join } from 'node:path';
import type { MeaningRule } from '@fadenweg/core/path';
import {
  FLOWS,
  FULL_DAY,
  generate,
  generateHuts,
  HUT_FLOWS,
  HUT_KINDS,
  HUT_MEANINGS,
  KINDS,
  MEANINGS,
  type Truth,
  type TrueTransaction,
} from '@fadenweg/standin';
import { declaring, filesBelow, type JudgedWorld } from './world.ts';

/** The lens works and the huts: the worlds that the product grew up with. */
export async function ownWorld(name: 'works' | 'huts', seed: number, records: number, out: string): Promise<JudgedWorld> {
  await rm(out, { recursive: true, force: true });
  await mkdir(out, { recursive: true });
  if (name === 'works') await generate({ out, seed, faultRate: 0.06, storyDay: FULL_DAY, stretches: [{ from: FULL_DAY, hours: 24, records }] });
  else await generateHuts(out, seed, FULL_DAY, 24, Math.round(records / 24), 0.06);
  const truth = (await readFile(join(out, 'truth/truth.jsonl'), 'utf8')).split('\n').filter((line) => line !== '').map((line) => JSON.parse(line) as Truth); // prettier-ignore
  const [kinds, flows, rules] = name === 'works' ? [KINDS, FLOWS, MEANINGS] : [HUT_KINDS, HUT_FLOWS, HUT_MEANINGS];
  return {
    name: `${name === 'works' ? 'lens works' : 'huts'}, seed ${seed}`,
    files: await filesBelow(join(out, 'logs')),
    declared: { ...declaring([...kinds] as Parameters<typeof declaring>[0]), flows, rules: rules as MeaningRule[] },
    truth: () => truth.map(trueOf),
  };
}

const placeOf = ({ source, line }: { source: string; line: number }): string => `${source.replace(/^logs\//, '')}:${line}`;
function trueOf(one: Truth): TrueTransaction {
  const { cause, businessId, flow, identifiers } = one;
  return {
    id: businessId,
    kind: flow,
    strand: businessId,
    legs: [one.records.map(placeOf)],
    byLeg: false,
    identifiers: identifiers.map((name) => name.value),
    outcomes: [one.outcome, ...(one.alsoRight ?? [])],
    good: one.outcome === 'done',
    fault: one.outcome === 'done' ? null : (one.kind ?? `story ${one.story}`),
    cause: cause && {
      components: [...new Set([cause.component, ...cause.accepted])].slice(0, 2),
      records: cause.record ? [placeOf(cause.record)] : [],
    },
    next: one.next ? [...one.next] : null,
    slowIn: one.outcome === 'slow' && cause ? cause.component : null,
  };
}
