import type pg from 'pg';
import { flowOf, type FlowRules } from '@fadenweg/core/findings';
import { arranged, pathOf } from '@fadenweg/core/path';
import type { Graph } from '@fadenweg/core/stitching';
import { ChosenLessons, learnUsual, lessonOf, type FlowUsual, type Lesson } from '@fadenweg/core/usual';
import { copyOut } from '../database/copy-out.ts';
import { gather, type GatherContext } from './gather.ts';

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
  const kinds = (await client.query<{ id: number }>('select id from identifier_kind where name = any($1)', [context.flows.map((flow) => flow.kind)]))
    .rows;
  if (kinds.length === 0) return new Map();
  const lessonsOf = new ChosenLessons();
  await copyOut(
    client,
    `select distinct on (s.key) s.key, s.kind_id, s.value from sighting s
       where s.kind_id in (${kinds.map(({ id }) => Number(id)).join(', ')}) and s.key in (select founder from tie) order by s.key`,
    (row) => {
      const key = row.big();
      const flow = flowOf(context.flows, context.kindName(row.small()), row.text());
      if (flow) lessonsOf.note(key, flow);
    },
  );
  const chosen = lessonsOf.chosen();
  const lessons = new Map<string, Lesson[]>();
  await gather(client, { founders: [...chosen.keys()], from: -Infinity, to: Infinity }, context, ({ founder, records: gathered, total }) => {
    const flow = chosen.get(founder)!;
    const { records } = arranged(gathered);
    const lesson = lessonOf(records, pathOf(records, context.graph.isLink), flow, context.evidenceEnd, total);
    const own = lessons.get(flow.name) ?? [];
    lessons.set(flow.name, own);
    if (lesson) own.push(lesson);
  });
  return new Map(context.flows.map(({ name }) => [name, learnUsual(name, lessons.get(name) ?? [], context.zone)]));
}
