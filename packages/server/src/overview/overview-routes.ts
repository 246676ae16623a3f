import Joi from 'joi';
import type { EnvironmentInfo, Health, ListedAnswer, SearchAnswer, Summary } from '@fadenweg/api';
import { LONGEST_PASTE, MOST_AT_ONCE } from '@fadenweg/core/search';
import { isoMicros } from '@fadenweg/core/units';
import type { Database } from '../database/connect.ts';
import { isDatabaseAway } from '../database/failures.ts';
import { endpoint, type AnyEndpoint } from '../platform/http/endpoint.ts';
import { Refusal } from '../platform/http/problems.ts';
import type { Happenings } from '../platform/happenings/happenings.ts';
import type { Work } from '../platform/work/work.ts';
import type { Names } from '../evidence/names.ts';
import type { SourceRepository } from '../evidence/sources.ts';
import type { StrandRepository } from '../weaving/strand-rows.ts';
import type { ImportService } from '../gathering/import-service.ts';
import type { SearchService } from '../strands/search-service.ts';
import type { Weaving } from '../weaving/weaving.ts';

export interface OverviewParts {
  demoAtHand: boolean;
  db: Database;
  version: string;
  sources: SourceRepository;
  strands: StrandRepository;
  names: Names;
  imports: ImportService;
  search: SearchService;
  weaving: Weaving;
  work: Work;
  happenings: Happenings;
}

export function overviewRoutes({
  demoAtHand,
  db,
  version,
  sources,
  strands,
  names,
  imports,
  search,
  weaving,
  work,
  happenings,
}: OverviewParts): AnyEndpoint[] {
  return [
    endpoint({
      method: 'get',
      path: '/health',
      summary: 'Versions, state of the database, running imports',
      async run(): Promise<Health> {
        const always = { version, weavingMs: weaving.spent };
        try {
          const { rows } = await db.raw<{ rows: { version: string }[] }>(`select current_setting('server_version') as version`);
          const running = await db('import').whereIn('state', ['receiving', 'reading']).count({ count: '*' }).first();
          const [counts, listeners] = await Promise.all([work.counts(), happenings.state()]);
          return {
            ...always,
            database: { state: 'up', version: rows[0]!.version },
            runningImports: Number(running?.count ?? 0),
            work: { running: counts.running ?? 0, waiting: counts.waiting ?? 0, failed: counts.failed ?? 0 },
            listeners,
          };
        } catch (error) {
          if (!isDatabaseAway(error)) throw error;
          return { ...always, database: { state: 'down', version: null }, runningImports: 0, work: null, listeners: [] };
        }
      },
    }),
    endpoint({
      method: 'get',
      path: '/summary',
      summary: 'What is loaded, from when to when, and what is going on',
      async run(): Promise<Summary> {
        const [own, running, total, unread, counts, components] = await Promise.all([
          sources.environments(),
          imports.rows.latest(20),
          strands.total(),
          sources.unread(),
          work.counts(),
          sources.components(),
        ]);
        return {
          records: own.reduce((sum, one) => sum + one.records, 0),
          sources: own.reduce((sum, one) => sum + one.sources, 0),
          strands: total,
          ...spanOf(own),
          demo: own.some((one) => one.someDemo),
          demoAtHand,
          environments: own.map(({ name, demo, records, ...span }): EnvironmentInfo => ({ name, demo, records, ...spanOf([span]) })),
          components,
          imports: await Promise.all(
            running.filter((row) => ['receiving', 'reading', 'removing'].includes(row.state)).map((row) => imports.progress.of(row)),
          ),
          weaving: weaving.behind > 0 ? { behind: weaving.behind } : null,
          unread,
          still: unread === 0 && !weaving.atWork,
          workStopped: counts.failed ?? 0,
        };
      },
    }),
    endpoint<unknown, unknown, { text: string; components: boolean }>({
      method: 'post',
      path: '/search/list',
      summary: 'Many identifiers at once: what each is, and the strand that it leads to',
      body: Joi.object({
        text: Joi.string()
          .trim()
          .min(1)
          .max(MOST_AT_ONCE * 60)
          .required(),
        components: Joi.boolean().default(false),
      }),
      async run({ body }): Promise<ListedAnswer> {
        return search.listed(body.text, body.components ? names.component : null);
      },
    }),
    endpoint<{ text: string }>({
      method: 'get',
      path: '/search',
      summary: 'What a pasted text holds: identifiers found, with their strands',
      query: Joi.object({
        text: Joi.string()
          .trim()
          .min(1)
          .max(LONGEST_PASTE)
          .required()
          .messages({ 'string.empty': 'there is nothing to look for', 'string.max': `the text is longer than ${LONGEST_PASTE} characters` }),
      }),
      async run({ query }): Promise<SearchAnswer> {
        if (!/\s/.test(query.text) && query.text.length > 200)
          throw new Refusal(
            400,
            'Too long for an identifier',
            `This has ${query.text.length} characters without a blank; an identifier has at most 200.`,
            'Paste the identifier alone, or the whole log line that holds it.',
          );
        return search.search(query.text);
      },
    }),
  ];
}

function spanOf(own: readonly { first: number | null; last: number | null }[]): { from: string | null; to: string | null } {
  const first = Math.min(...own.map((one) => one.first ?? Infinity));
  const last = Math.max(...own.map((one) => one.last ?? -Infinity));
  return { from: Number.isFinite(first) ? isoMicros(first) : null, to: Number.isFinite(last) ? isoMicros(last) : null };
}
