import { EVIDENCE_END } from '../evidence/sources.ts';
import type pg from 'pg';
import type { Parted } from '@fadenweg/core/faults';
import type { FlowRules } from '@fadenweg/core/findings';
import { PARTED } from '../evidence/origins.ts';
import { SPANS, type ComponentSpan } from '../evidence/component-spans.ts';
import { reachByFlow } from './reach.ts';

const ONCE = `select id, definition ->> 'label' as label from identifier_kind where not retired and definition ->> 'role' = 'shared' and definition ->> 'once' = 'true'`;

/** What strands are judged by besides what is learned: declared flows, how far the evidence reaches, and the zone in which most of it is told. */
export async function judgedBy(client: pg.Client) {
  const evidence = await client.query<{ end: number | null }>(EVIDENCE_END);
  const zone = await client.query<{ zone: string }>('select zone from source group by zone order by sum(records) desc, zone limit 1');
  const flows = await client.query<{ definition: FlowRules }>('select definition from flow');
  const once = await client.query<{ id: number; label: string }>(ONCE);
  return {
    flows: flows.rows.map((row) => row.definition),
    once: new Map(once.rows.map((row) => [row.id, row.label])),
    evidenceEnd: evidence.rows[0]?.end ?? 0,
    zone: zone.rows[0]?.zone ?? 'UTC',
    parted: (await client.query<Parted>(PARTED)).rows,
    reach: reachByFlow((await client.query<ComponentSpan>(SPANS)).rows),
  };
}
