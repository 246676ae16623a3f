import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { csvCells } from '../reading/csv.ts';
import { xmlTree } from '../reading/xml-tree.ts';
import { csvLine } from './csv.ts';
import { otlpAttributes, otlpResource, otlpSeverity, otlpTraceMember } from './otlp-logs.ts';
import { otlpTrace } from './otlp.ts';
import type { ExchangedStrand } from './strand.ts';
import { XES_HEAD, XES_TAIL, xesTrace } from './xes.ts';

const step = (id: number, parent: number | null, component: string, from: number, to: number, outcome = 'done') => ({
  id,
  parent,
  leg: 1,
  attempt: 1,
  component,
  host: component === 'desk' ? 'app-1' : '',
  startedAt: `2026-11-24T10:00:0${from}.123456Z`,
  endedAt: `2026-11-24T10:00:0${to}.000001Z`,
  workMs: 1,
  waitMs: 0,
  outcome,
  records: 2,
});
const strand: ExchangedStrand = {
  id: 'order:LX-1',
  flow: 'order',
  flowLabel: 'lens order',
  businessId: 'LX-1',
  name: 'LX-1',
  outcome: 'failed',
  attributes: { shop: 'A & B "<7>"' },
  startedAt: '2026-11-24T10:00:00.123456Z',
  endedAt: '2026-11-24T10:00:09.000001Z',
  steps: [step(1, null, 'desk', 0, 9), step(2, 1, 'store', 2, 5, 'failed')],
  findings: [{ kind: 'failed-at', component: 'store', sentence: 'Failed in store.' }],
};

describe('parts of records as OTLP logs', () => {
  test('tell who wrote them, as far as it is known', () => {
    const keys = (json: string): string[] => (JSON.parse(json) as { attributes: { key: string }[] }).attributes.map(({ key }) => key);
    expect(keys(otlpResource('desk', 'app-1', 'test'))).toEqual(['service.name', 'host.name', 'deployment.environment.name']);
    expect(keys(otlpResource('store', '', 'test'))).toEqual(['service.name', 'deployment.environment.name']);
  });
  test('tell severity, and the trace that their strand is', () => {
    expect(JSON.parse(`{${otlpSeverity('warning')}}`)).toEqual({ severityNumber: 13, severityText: 'WARNING' });
    expect(JSON.parse(`{${otlpSeverity('none')}}`)).toEqual({ severityNumber: 0, severityText: '' });
    const trace = otlpTrace(strand) as { resourceSpans: { scopeSpans: { spans: { traceId: string }[] }[] }[] };
    expect(JSON.parse(`{${otlpTraceMember('order:LX-1')}}`)).toEqual({ traceId: trace.resourceSpans[0]!.scopeSpans[0]!.spans[0]!.traceId });
  });
  test('hold any members as attributes', () => {
    const told = (members: Record<string, unknown>) => JSON.parse(`[0${otlpAttributes(JSON.stringify(members))}]`) as unknown[];
    expect(told({})).toEqual([0]);
    expect(told({ took: 12.5, deep: { a: [1] }, is: true })).toEqual([
      0,
      { key: 'took', value: { doubleValue: 12.5 } },
      { key: 'deep', value: { stringValue: '{"a":[1]}' } },
      { key: 'is', value: { stringValue: 'true' } },
    ]);
    fc.assert(
      fc.property(
        fc.dictionary(
          fc.string({ unit: 'binary' }),
          fc.oneof(fc.string({ unit: 'binary' }), fc.double({ noNaN: true, noDefaultInfinity: true }), fc.boolean(), fc.array(fc.string())),
        ),
        (members) => {
          const plain = JSON.parse(JSON.stringify(members)) as Record<string, unknown>; // -0 is 0 there
          const wanted = Object.entries(plain).map(([key, value]) => ({
            key,
            value: typeof value === 'number' ? { doubleValue: value } : { stringValue: typeof value === 'string' ? value : JSON.stringify(value) },
          }));
          expect(told(plain).slice(1)).toEqual(wanted);
          // bytes of UTF-8 taken for letters come out as they went in
          const bytes = otlpAttributes(Buffer.from(JSON.stringify(plain)).toString('latin1'));
          expect(JSON.parse(`[0${Buffer.from(bytes, 'latin1').toString()}]`)).toEqual([0, ...wanted]);
        },
      ),
    );
  });
});

describe('a strand as a trace of OTLP', () => {
  const { resourceSpans } = otlpTrace(strand) as {
    resourceSpans: {
      resource: { attributes: { key: string; value: { stringValue: string } }[] };
      scopeSpans: { spans: Record<string, unknown>[] }[];
    }[];
  };
  const spans = resourceSpans.flatMap((one) => one.scopeSpans.flatMap((scope) => scope.spans));

  test('has a span for the whole and one for each step below its caller’s', () => {
    expect(spans.map((span) => span.name)).toEqual(['lens order', 'desk', 'store']);
    expect(spans[1]!.parentSpanId).toBe(spans[0]!.spanId);
    expect(spans[2]!.parentSpanId).toBe(spans[1]!.spanId);
    expect(new Set(spans.map((span) => span.traceId)).size).toBe(1);
    for (const span of spans)
      expect([String(span.traceId), String(span.spanId)]).toEqual([expect.stringMatching(/^[0-9a-f]{32}$/), expect.stringMatching(/^[0-9a-f]{16}$/)]);
  });
  test('keeps microseconds, names services and hosts, and marks what failed', () => {
    expect(spans[0]).toMatchObject({ startTimeUnixNano: '1795514400123456000', endTimeUnixNano: '1795514409000001000', status: { code: 2 } });
    expect(spans.map((span) => (span.status as { code: number }).code)).toEqual([2, 0, 2]);
    expect(resourceSpans.map((one) => one.resource.attributes.map((own) => own.value.stringValue))).toEqual([
      ['fadenweg'],
      ['desk', 'app-1'],
      ['store'],
    ]);
  });
  test('is the same each time', () => expect(otlpTrace(strand)).toEqual(otlpTrace(strand)));
});

describe('a strand as a trace of XES', () => {
  test('is well-formed, with a start and an end for each step in order of time', () => {
    const log = xmlTree((XES_HEAD + xesTrace(strand) + XES_TAIL).replace(/^<\?xml.*\?>\n/, ''))!;
    const trace = log.children.find((one) => one.name === 'trace')!;
    const value = (node: typeof trace, key: string): string | undefined =>
      node.children
        .find((one) => one.attributes.some(([name, text]) => name === 'key' && text === key))
        ?.attributes.find(([name]) => name === 'value')?.[1];
    expect([value(trace, 'concept:name'), value(trace, 'fadenweg:shop')]).toEqual(['LX-1', 'A & B "<7>"']);
    const events = trace.children.filter((one) => one.name === 'event');
    expect(
      events.map((one) => `${value(one, 'concept:name')} ${value(one, 'lifecycle:transition')} ${value(one, 'time:timestamp')!.slice(17)}`),
    ).toEqual(['desk start 00.123+00:00', 'store start 02.123+00:00', 'store complete 05.000+00:00', 'desk complete 09.000+00:00']);
  });
  test('of any text', () =>
    fc.assert(
      fc.property(fc.string({ unit: 'binary' }), (text) =>
        expect(xmlTree(xesTrace({ ...strand, businessId: text, attributes: { [text]: text } }))).not.toBeNull(),
      ),
    ));
});

describe('a line of CSV', () => {
  test('is read back as it was', () =>
    fc.assert(
      fc.property(
        fc.array(
          fc.string().filter((text) => !/^[=+@\t\r]|^-(?!\d)/.test(text)),
          { minLength: 2, maxLength: 6 },
        ),
        (cells) => expect(csvCells(csvLine(cells))).toEqual(cells),
      ),
    ));
  test('holds no formula', () => expect(csvLine(['=1+1', '+49 30', '-5', -5, '@x', null, true])).toBe("'=1+1,'+49 30,-5,-5,'@x,,true"));
});
