import { attribute, nanos, traceIdOf } from './otlp-parts.ts';

/** What is told of a record. */
export interface ExchangedRecord {
  at: string;
  component: string;
  host: string;
  environment: string;
  level: string;
  logger: string;
  message: string;
  attributes: Readonly<Record<string, unknown>>;
  /** Id of the strand that it belongs to. */
  strand: string | null;
  source: { path: string; line: number };
}

/** By level, as OTLP counts severity. */
const SEVERITY: Readonly<Record<string, number>> = { none: 0, trace: 1, debug: 5, info: 9, warning: 13, error: 17, fatal: 21 };

/** Records as OTLP logs (JSON encoding of ExportLogsServiceRequest), by who wrote them; one of a strand names the strand's trace. */
export function otlpLogs(records: readonly ExchangedRecord[]): object {
  const places = new Map<string, Map<string, ExchangedRecord[]>>();
  const traces = new Map<string, string>();
  const traceOf = (strand: string): string => {
    const known = traces.get(strand) ?? traceIdOf(strand);
    traces.set(strand, known);
    return known;
  };
  for (const one of records) {
    const place = JSON.stringify([one.component, one.host, one.environment]);
    const loggers = places.get(place) ?? new Map<string, ExchangedRecord[]>();
    places.set(place, loggers);
    const own = loggers.get(one.logger);
    if (own) own.push(one);
    else loggers.set(one.logger, [one]);
  }
  return {
    resourceLogs: [...places].map(([place, loggers]) => {
      const [component, host, environment] = JSON.parse(place) as [string, string, string];
      const about = [['service.name', component], ['host.name', host], ['deployment.environment.name', environment]] as const; // prettier-ignore
      return {
        resource: { attributes: about.filter(([, value]) => value !== '').map(([key, value]) => attribute(key, value)) },
        scopeLogs: [...loggers].map(([name, own]) => ({ scope: { name }, logRecords: own.map((one) => logRecord(one, traceOf)) })),
      };
    }),
  };
}

function logRecord({ at, level, message, attributes, strand, source }: ExchangedRecord, traceOf: (strand: string) => string): object {
  const own = Object.entries(attributes).map(([key, value]) => attribute(key, typeof value === 'number' ? value : String(value)));
  return {
    timeUnixNano: nanos(at),
    severityNumber: SEVERITY[level] ?? 0,
    severityText: level === 'none' ? '' : level.toUpperCase(),
    body: { stringValue: message },
    attributes: [...own, attribute('log.file.path', source.path), attribute('log.record.line', source.line)],
    ...(strand === null ? {} : { traceId: traceOf(strand) }),
  };
}
