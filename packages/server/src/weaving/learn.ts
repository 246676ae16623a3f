import type pg from 'pg';
import { EVERYWHERE } from '@fadenweg/core/coverage';
import { judgeStrand, type FlowRules } from '@fadenweg/core/findings';
import { arranged, pathOf } from '@fadenweg/core/path';
import type { Graph } from '@fadenweg/core/stitching';
import { FEWEST_LEGS, learnUsual, type FlowUsual, type Lesson } from '@fadenweg/core/usual';
import { copyOut } from '../database/copy-out.ts';
import { gather, type GatherContext } from './gather.ts';
import { flowOf } from './judge.ts';

/** Strands of each flow from which the usual is learned. */
const LESSONS = 600;
/** Longer ones are no help. */
const MOST_RECORDS = 2000;

export interface LearnContext extends GatherContext {
  graph: Graph;
  kindName(id: number): string;
  flows: readonly FlowRules[];
  evidenceEnd: number;
  /** IANA zone in which hours and weekdays are told. */
  zone: string;
}

/**
 * Learns what is usual for each flow from some of its strands, always the same ones for the same strands: those with the smallest keys, which are hashes.
 *
 * @returns by flow; null for those of which there are too few
 */
export async function learn(client: pg.Client, context: LearnContext): Promise<Map<string, FlowUsual | null>> {
  const byFlow = new Map<string, number[]>(context.flows.map((flow) => [flow.name, []]));
  const flowOfFounder = new Map<number, FlowRules>();
  const kinds = (await client.query<{ id: number }>('select id from identifier_kind where name = any($1)', [context.flows.map((flow) => flow.kind)]))
    .rows;
  if (kinds.length === 0) return new Map();
  await copyOut(
    client,
    `select distinct on (s.key) s.key, s.kind_id, s.value from sighting s
       where s.kind_id in (${kinds.map(({ id }) => Number(id)).join(', ')}) and s.key in (select founder from tie) order by s.key`,
    (row) => {
      const key = row.big();
      const flow = flowOf(context.flows, context.kindName(row.small()), row.text());
      const own = flow && byFlow.get(flow.name)!;
      if (!own || own.length >= LESSONS) return;
      own.push(key);
      flowOfFounder.set(key, flow);
    },
  );
  const founders = [...byFlow.values()].filter((own) => own.length >= FEWEST_LEGS).flat();
  const lessons = new Map<string, Lesson[]>();
  await gather(client, { founders, from: -Infinity, to: Infinity }, context, ({ founder, records: gathered, total }) => {
    if (total > MOST_RECORDS) return;
    const flow = flowOfFounder.get(founder)!;
    const { records } = arranged(gathered);
    const path = pathOf(records, context.graph.isLink);
    const leg = path.legs[0]!.records.map((index) => records[index]!);
    const own = lessons.get(flow.name) ?? [];
    lessons.set(flow.name, own);
    own.push({
      records: leg,
      outcome: judgeStrand({ records, path, flow, evidenceEnd: context.evidenceEnd, usual: null, reach: EVERYWHERE, twin: null }).legs[0]!,
      later: path.legs.slice(1).map((one) => records[one.records[0]!]!),
      until: context.evidenceEnd,
    });
  });
  return new Map([...byFlow.keys()].map((name) => [name, learnUsual(name, lessons.get(name) ?? [], context.zone)]));
}
