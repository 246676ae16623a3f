import Joi from 'joi';
import type { LiveGap, LiveStrand } from '@fadenweg/api';
import { LONGEST_SEARCH } from '@fadenweg/core/search';
import { endpoint, type AnyEndpoint } from '../platform/http/endpoint.ts';
import { list, searchOf, splitList } from '../platform/http/inputs.ts';
import { notFound } from '../platform/http/problems.ts';
import type { Arrivals } from './arrivals.ts';
import type { EventStream } from '../platform/http/event-stream.ts';
import { Telling } from '../platform/http/leaving.ts';
import type { Watchers } from './watchers.ts';
import type { LiveSearch } from './feed.ts';
import type { SourceRepository } from '../evidence/sources.ts';
import type { StrandService } from '../strands/strand-service.ts';

/** What comes in within so many milliseconds is told in one event. */
const TOGETHER = 150;
/** Arrivals of one event; each is one condition of a query. */
const MOST_ARRIVALS = 60;

interface Watching {
  q: string;
  environment?: string;
  sources?: string;
  quiet: 'hide' | 'show';
  since?: string;
}

/** What comes in, told as it does. */
export function liveRoutes(
  arrivals: Arrivals,
  watchers: Watchers,
  live: LiveSearch,
  sources: SourceRepository,
  strands: StrandService,
): AnyEndpoint[] {
  const fed = (tell: (stream: EventStream) => Promise<void>): Telling => {
    watchers.refuseTooMany();
    return new Telling((stream) => watchers.feed(() => tell(stream)));
  };
  /** Tells something whenever strands may have changed, until the stream is closed. */
  const whenWoven = async (stream: EventStream, tell: () => Promise<unknown>): Promise<void> => {
    let wake: (() => void) | null = null;
    let due = false;
    const stop = arrivals.listenToWeaving(() => {
      due = true;
      wake?.();
    });
    stream.onEnd = () => {
      stop();
      wake?.();
    };
    while (stream.open) {
      if (!due) await new Promise<void>((resolve) => (wake = resolve));
      wake = null;
      due = false;
      if (stream.open) await tell();
    }
  };
  return [
    endpoint<Watching>({
      method: 'get',
      path: '/live',
      summary: 'Server-sent events: records that a search finds among what comes in from now on, or since the last event that was received',
      query: Joi.object({
        q: Joi.string().allow('').max(LONGEST_SEARCH).default(''),
        environment: list,
        sources: Joi.string()
          .pattern(/^\d{1,9}(?:,\d{1,9}){0,499}$/, 'numbers of sources with commas between them')
          .max(5000),
        quiet: Joi.string().valid('hide', 'show').default('show'),
        since: Joi.string().max(40),
      }),
      async run({ query, lastEvent }): Promise<Telling> {
        const search = searchOf(query.q);
        const ids = query.sources ? await sources.withParts(query.sources.split(',').map(Number)) : undefined;
        const asked = {
          search,
          environment: splitList(query.environment),
          sources: ids && { ids, out: false },
          quiet: query.quiet === 'hide',
        };
        return fed(async (stream) => {
          const known = lastEvent ?? query.since;
          let wake: (() => void) | null = null;
          const stop = arrivals.listen(() => wake?.());
          stream.onEnd = () => {
            stop();
            wake?.();
          };
          let reached = known === undefined ? arrivals.place : arrivals.numberOf(known);
          if (reached === null) {
            reached = arrivals.place;
            await stream.send('gap', { why: 'restarted' } satisfies LiveGap, arrivals.placeOf(reached));
          } else await stream.send('begin', {}, arrivals.placeOf(reached));
          while (stream.open) {
            const some = arrivals.after(reached, MOST_ARRIVALS);
            if (some === null) {
              reached = arrivals.place;
              await stream.send('gap', { why: 'too-late' } satisfies LiveGap, arrivals.placeOf(reached));
            } else if (some.length === 0) {
              await new Promise<void>((resolve) => (wake = resolve));
              wake = null;
              await new Promise((resolve) => setTimeout(resolve, TOGETHER));
            } else {
              reached = some.at(-1)!.number;
              const told = await live.among(asked, some);
              await stream.send('records', told, arrivals.placeOf(reached));
            }
          }
        });
      },
    }),
    endpoint({
      method: 'get',
      path: '/live/strands',
      summary: 'Server-sent events: strands may have come, grown, or are judged otherwise',
      run: (): Promise<Telling> =>
        Promise.resolve(
          fed(async (stream) => {
            await stream.send('begin', {});
            await whenWoven(stream, () => stream.send('strands', {}));
          }),
        ),
    }),
    endpoint<unknown, { id: string }>({
      method: 'get',
      path: '/live/strands/{id}',
      summary: 'Server-sent events: a strand has grown, or is judged otherwise',
      params: Joi.object({ id: Joi.string().max(400).required() }),
      async run({ params }): Promise<Telling> {
        const now = async (): Promise<LiveStrand | null> => {
          const found = await strands.resolve(params.id);
          if (found === null) return null;
          if (!('row' in found)) return { id: 'moved' in found ? found.moved : params.id, records: 0, outcome: '' };
          return { id: params.id, records: found.row.records, outcome: found.row.outcome };
        };
        let known = await now();
        if (!known) throw notFound('This strand');
        return fed(async (stream) => {
          await stream.send('strand', known);
          await whenWoven(stream, async () => {
            const next = await now();
            if (next && JSON.stringify(next) !== JSON.stringify(known)) await stream.send('strand', next);
            known = next ?? known;
          });
        });
      },
    }),
  ];
}
