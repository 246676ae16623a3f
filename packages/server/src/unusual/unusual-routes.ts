import Joi from 'joi';
import type { Departure, DifferentShapes } from '@fadenweg/api';
import { weightIndex, weightName, weightOfStrand } from '@fadenweg/core/weights';
import type { SourceRepository } from '../evidence/sources.ts';
import { endpoint, type AnyEndpoint } from '../platform/http/endpoint.ts';
import { instant, list, microsOf, splitList } from '../platform/http/inputs.ts';
import { Pieces } from '../platform/http/leaving.ts';
import { checkedWindow, zone, type AskedWindow } from '../platform/http/windows.ts';
import type { DeparturesService } from '../rounds/departures.ts';
import type { ShapeService } from '../shapes/shapes.ts';

const DAY = 86_400_000_000;
/** As far as strands, and shapes, are looked at at once. */
const [YEARS, YEAR] = [10 * 366 * DAY, 366 * DAY];
/** Shapes are counted by ten minutes. */
const SHORTEST = 600_000_000;

interface Unusual {
  from?: string;
  to?: string;
  environment?: string;
  zone: string;
}

export function unusualRoutes(departures: DeparturesService, shapes: ShapeService, sources: SourceRepository): AnyEndpoint[] {
  /** Where no window is asked for, the last day of the evidence; where no environment, all of one's own, and the demo only where there is nothing else. */
  async function windowOf({ from, to, environment, zone: named }: Unusual): Promise<AskedWindow | null> {
    const known = await sources.environments();
    const own = known.some((one) => !one.demo) ? known.filter((one) => !one.demo) : known;
    const names = splitList(environment) ?? own.map((one) => one.name);
    const last = Math.max(...known.filter((one) => names.includes(one.name)).map((one) => one.last ?? -Infinity));
    const end = to === undefined ? last + 1 : microsOf(to);
    return Number.isFinite(end)
      ? checkedWindow({ from: from === undefined ? end - DAY : microsOf(from), to: end, environment: names, zone: named }, YEARS)
      : null;
  }
  return [
    endpoint<Unusual>({
      method: 'get',
      path: '/unusual/export',
      summary:
        'What departs from the usual, as JSON lines, the gravest first: strands and clocks, and shapes that are new, surging, fading or gone; of the last day of the evidence where no window is given',
      query: Joi.object({ from: instant, to: instant, environment: list, zone }),
      async run({ query }): Promise<Pieces> {
        const window = await windowOf(query);
        if (window === null) return new Pieces(written([]), 'application/x-ndjson');
        const [{ items }, said] = await Promise.all([departures.of(window), different(shapes, window)]);
        const lines = [...items.map(ofStrands), ...(said ? ofShapes(said) : [])];
        return new Pieces(written(lines.sort((a, b) => weightIndex(b.weight) - weightIndex(a.weight))), 'application/x-ndjson'); // prettier-ignore
      },
    }),
  ];
}

const different = (shapes: ShapeService, window: AskedWindow): Promise<DifferentShapes> | null =>
  window.to - window.from < SHORTEST || window.to - window.from > YEAR
    ? null
    : shapes.different({ ...window, baseline: 'before', other: null, otherEnvironment: '', host: '', all: false });

interface Line {
  what: string;
  component: string;
  host: string;
  /** Its text; null for what is about strands. */
  shape: string | null;
  from: string;
  to: string;
  count: number;
  expected: number | null;
  weight: ReturnType<typeof weightName>;
  title: string;
  outcome: string | null;
  flows: string[];
  finding: string | null;
}
const ofStrands = ({ what, component, host, from, to, count, expected, title, flows, outcome, finding }: Departure): Line => ({
  what,
  component,
  host,
  shape: null,
  from,
  to,
  count,
  expected,
  weight: weightName(outcome === null ? 1 : weightOfStrand(outcome, 0)),
  title,
  outcome,
  flows: flows.map((one) => one.flow),
  finding,
});
/** Single sayings are new every day. */
const ofShapes = ({ items, from, to }: DifferentShapes): Line[] =>
  items
    .filter((one) => !one.few)
    .map(({ kind, component, text, count, expected, weight }) => ({
      what: kind,
      component,
      host: '',
      shape: text,
      from,
      to,
      count,
      expected,
      weight,
      title: `${component} says “${text}”: ${kind}`,
      outcome: null,
      flows: [],
      finding: null,
    }));

async function* written(lines: readonly Line[]): AsyncGenerator<string> {
  for (const line of lines) yield `${JSON.stringify(line)}\n`;
}
