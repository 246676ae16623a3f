import { attribute, nanos, spanIdOf, traceIdOf } from './otlp-parts.ts';
import type { ExchangedStep, ExchangedStrand } from './strand.ts';

const UNSET = 0;
const ERROR = 2;
const INTERNAL = 1;
const FAULTS = new Set(['failed', 'stalled']);

/**
 * A strand as a trace of OTLP (JSON encoding of ExportTraceServiceRequest): a span for the whole, one for each step below its caller's, by component. The ids are made of the
 * strand's, so that the same strand is always the same trace.
 */
export function otlpTrace(strand: ExchangedStrand): object {
  const traceId = traceIdOf(strand.id);
  const spanOf = (step: number): string => spanIdOf(strand.id, step);
  const root = {
    traceId,
    spanId: spanOf(0),
    name: strand.flowLabel || strand.name,
    kind: INTERNAL,
    startTimeUnixNano: nanos(strand.startedAt),
    endTimeUnixNano: nanos(strand.endedAt),
    attributes: [
      attribute('fadenweg.strand', strand.id),
      ...(strand.businessId === null ? [] : [attribute('fadenweg.business_id', strand.businessId)]),
      attribute('fadenweg.outcome', strand.outcome),
      ...Object.entries(strand.attributes).map(([key, value]) => attribute(key, value)),
    ],
    events: strand.findings.map((finding) => ({
      timeUnixNano: nanos(strand.endedAt),
      name: finding.kind,
      attributes: [attribute('component', finding.component), attribute('sentence', finding.sentence)],
    })),
    status: { code: FAULTS.has(strand.outcome) ? ERROR : UNSET },
  };
  const span = (step: ExchangedStep) => ({
    traceId,
    spanId: spanOf(step.id),
    parentSpanId: spanOf(step.parent ?? 0),
    name: step.component,
    kind: INTERNAL,
    startTimeUnixNano: nanos(step.startedAt),
    endTimeUnixNano: nanos(step.endedAt),
    attributes: [
      attribute('fadenweg.leg', step.leg),
      attribute('fadenweg.attempt', step.attempt),
      attribute('fadenweg.work_ms', step.workMs),
      attribute('fadenweg.wait_ms', step.waitMs),
      attribute('fadenweg.records', step.records),
    ],
    status: { code: step.outcome === 'failed' ? ERROR : UNSET },
  });
  const places = new Map<string, { component: string; host: string; spans: object[] }>([['', { component: 'fadenweg', host: '', spans: [root] }]]);
  for (const step of strand.steps) {
    const key = `${step.component}\u0000${step.host}`;
    const own = places.get(key) ?? { component: step.component, host: step.host, spans: [] };
    places.set(key, own);
    own.spans.push(span(step));
  }
  return {
    resourceSpans: [...places.values()].map(({ component, host, spans }) => ({
      resource: { attributes: [attribute('service.name', component), ...(host === '' ? [] : [attribute('host.name', host)])] },
      scopeSpans: [{ scope: { name: 'fadenweg' }, spans }],
    })),
  };
}
