import Joi from 'joi';
import type { Coverage } from '@fadenweg/api';
import { joinStretches } from '@fadenweg/core/coverage';
import { isoMicros } from '@fadenweg/core/units';
import { endpoint, type AnyEndpoint } from '../platform/http/endpoint.ts';
import { instant, microsOf } from '../platform/http/inputs.ts';
import type { CoverageRepository } from './coverage.ts';
import type { Names } from './names.ts';
import type { SourceRepository } from './sources.ts';

/** Stretches closer than this share of the window are drawn as one. */
const FINEST = 2000;

export function coverageRoutes(coverage: CoverageRepository, sources: SourceRepository, names: Names): AnyEndpoint[] {
  return [
    endpoint<{ from?: string; to?: string }>({
      method: 'get',
      path: '/coverage',
      summary: 'When each source speaks: stretches within a window',
      query: Joi.object({ from: instant, to: instant }),
      async run({ query }): Promise<Coverage> {
        const families = await sources.families();
        const first = Math.min(...families.map((row) => row.first_at ?? Infinity));
        const last = Math.max(...families.map((row) => row.last_at ?? -Infinity));
        const from = query.from ? microsOf(query.from) : first;
        const to = query.to ? microsOf(query.to) : last + 1;
        if (!Number.isFinite(from) || !Number.isFinite(to) || to <= from) return { from: null, to: null, items: [] };
        const rows = await coverage.within(from, to);
        const finest = (to - from) / FINEST;
        return {
          from: isoMicros(from),
          to: isoMicros(to),
          items: families.map((family) => {
            const own = rows.filter((row) => row.source === family.id).map((row) => ({ from: Math.max(from, row.from), to: Math.min(to, row.to) }));
            return {
              source: family.id,
              path: family.path,
              component: names.component(family.component_id),
              environment: family.environment,
              demo: family.demo,
              stretches: joinStretches(own, finest).map((one): [number, number] => [Math.floor(one.from / 1000), Math.ceil(one.to / 1000)]),
            };
          }),
        };
      },
    }),
  ];
}
