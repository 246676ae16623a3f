import type { Database } from '../database/connect.ts';
import type { Metric } from '../platform/http/metrics.ts';
import type { Happenings } from '../platform/happenings/happenings.ts';
import type { Work } from '../platform/work/work.ts';
import type { Weaving } from '../weaving/weaving.ts';

/** What the server tells of itself in figures; of the database nothing where it is away. */
export async function metricsOf(db: Database, work: Work, happenings: Happenings, weaving: Weaving): Promise<Metric[]> {
  const { rss, heapUsed } = process.memoryUsage();
  const own: Metric[] = [
    { name: 'fadenweg_uptime_seconds', type: 'gauge', help: 'since the server was started', samples: [{ value: Math.round(process.uptime()) }] },
    {
      name: 'fadenweg_memory_bytes',
      type: 'gauge',
      help: 'memory of the process',
      samples: [{ labels: { of: 'process' }, value: rss }, { labels: { of: 'objects' }, value: heapUsed }], // prettier-ignore
    },
    {
      name: 'fadenweg_weaving_seconds',
      type: 'counter',
      help: 'time that each kind of weaving has taken',
      samples: Object.entries(weaving.spent).map(([kind, ms]) => ({ labels: { kind }, value: ms / 1000 })),
    },
  ];
  try {
    const [counts, listeners, sources] = await Promise.all([work.counts(), happenings.state(), sourcesBy(db)]);
    return [
      { name: 'fadenweg_database_up', type: 'gauge', help: 'whether the database answers', samples: [{ value: 1 }] },
      ...own,
      {
        name: 'fadenweg_work',
        type: 'gauge',
        help: 'pieces of work in the background',
        samples: (['running', 'waiting', 'failed'] as const).map((state) => ({ labels: { state }, value: counts[state] ?? 0 })),
      },
      {
        name: 'fadenweg_listener_behind',
        type: 'gauge',
        help: 'happenings that a listener has not heard yet',
        samples: listeners.map(({ name, behind }) => ({ labels: { name }, value: behind })),
      },
      {
        name: 'fadenweg_sources',
        type: 'gauge',
        help: 'sources',
        samples: sources.map(({ state, sources: value }) => ({ labels: { state }, value })),
      },
      {
        name: 'fadenweg_records',
        type: 'gauge',
        help: 'records that are stored',
        samples: [{ value: sources.reduce((sum, one) => sum + one.records, 0) }],
      },
    ];
  } catch {
    return [{ name: 'fadenweg_database_up', type: 'gauge', help: 'whether the database answers', samples: [{ value: 0 }] }, ...own]; // that it is away is what there is to tell
  }
}

async function sourcesBy(db: Database): Promise<{ state: string; sources: number; records: number }[]> {
  const { rows } = await db.raw<{ rows: { state: string; sources: number; records: number }[] }>(
    'select state, count(*)::int as sources, coalesce(sum(records), 0)::bigint as records from source group by state order by state',
  );
  return rows;
}
