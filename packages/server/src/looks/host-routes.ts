import Joi from 'joi';
import type { ClockStretch, HostClock, Page } from '@fadenweg/api';
import { isAmiss, type ClockSpan } from '@fadenweg/core/clocks';
import { isoMicros } from '@fadenweg/core/units';
import { endpoint, type AnyEndpoint } from '../platform/http/endpoint.ts';
import { numbered } from '../platform/http/inputs.ts';
import { notFound } from '../platform/http/problems.ts';
import { spansOf, type ClockRepository, type ClockRow } from '../evidence/clock-rows.ts';
import type { Clocks } from './clocks.ts';
import type { Reread } from '../evidence/reread.ts';

/** A clock that is further off is another zone or another year, in milliseconds. */
const FARTHEST = 400 * 86_400_000;
const US_PER_HOUR = 3_600_000_000;

export function hostRoutes(clocks: Clocks, rows: ClockRepository, reread: () => Reread): AnyEndpoint[] {
  return [
    endpoint({
      method: 'get',
      path: '/hosts',
      summary: 'Hosts with their clocks: how far each is ahead, how surely that is known, and what bounds it',
      async run(): Promise<Page<HostClock>> {
        return { items: (await rows.speaking()).map(inWords), next: null };
      },
    }),
    endpoint<unknown, { id: number }, { aheadMs: number | null }>({
      method: 'put',
      path: '/hosts/{id}',
      summary: 'Sets by hand how far a clock is ahead, or lets what was found hold again (null); what it wrote is read again',
      params: numbered,
      status: 202,
      body: Joi.object({ aheadMs: Joi.number().min(-FARTHEST).max(FARTHEST).allow(null).required() }),
      async run({ params, body, access }): Promise<HostClock> {
        const clock = await rows.byId(params.id);
        if (!clock) throw notFound('This host');
        const sources = await clocks.set(clock, body.aheadMs === null ? null : Math.round(body.aheadMs * 1000), access, reread().due);
        if (sources.length > 0) await reread().readAgain(sources, true);
        return inWords((await rows.byId(params.id))!);
      },
    }),
  ];
}

function inWords(row: ClockRow): HostClock {
  const spans = spansOf(row);
  return {
    id: row.id,
    host: row.host,
    component: row.component,
    state: row.set_ahead !== null ? 'set' : spans.length === 0 ? 'unbounded' : isAmiss(spans) ? 'corrected' : 'right',
    stretches: spans.map(stretch),
    found: row.found.map(stretch),
    evidence: row.readings.map(({ from, to, low, high, hops }) => ({
      from: isoMicros(from),
      to: isoMicros(to),
      leastMs: low / 1000,
      mostMs: high / 1000,
      hops,
    })),
    hops: row.hops,
    partners: row.partners,
    setAheadMs: row.set_ahead === null ? null : row.set_ahead / 1000,
    changedBy: row.changed_by,
    changedAt: row.changed_at.toISOString(),
  };
}

const stretch = ({ from, to, ahead, drift, within }: ClockSpan): ClockStretch => ({
  from: isoMicros(from),
  to: isoMicros(to),
  aheadMs: ahead / 1000,
  driftMsPerHour: (drift * US_PER_HOUR) / 1000,
  withinMs: within / 1000,
});
