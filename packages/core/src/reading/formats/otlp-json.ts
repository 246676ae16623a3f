import type { Cut, Draft, Fields, FieldValue, Level, Reader, RecordReader, ReadingContext } from './shared.ts';
import { decodeView } from '../encoding.ts';
import { JsonCutter, type JsonCutterState } from '../json-cutter.ts';
import { levelOf } from '../levels.ts';
import { parseObject } from '../json-fields.ts';

const RECORDS = new Set(['spans', 'logRecords', 'log_records']);
const AROUND = new Set(['resource', 'scope', 'instrumentationLibrary']);
const KINDS = ['unspecified', 'internal', 'server', 'client', 'producer', 'consumer'];
const MOST_FIELDS = 200;

/** Files in OTLP's JSON (OpenTelemetry protocol 1.x): spans become records with begin and end, log records stay what they are. */
export const otlpJson: Reader = {
  format: 'otlp-json',
  confidence: (sample) =>
    /^\s*[[{]/.test(sample.text) && /"(?:resourceSpans|resourceLogs|resource_spans|resource_logs)"\s*:/.test(sample.text) ? 0.995 : 0,
  open: (_sample, context) => new OtlpReader(context),
};

interface Attribute {
  key?: string;
  value?: Record<string, unknown>;
}

class OtlpReader implements RecordReader {
  private readonly cutter: JsonCutter;
  /** Fields of the resource and its scope; made new when their text changes. */
  private around: { text: string; fields: Fields; component: string; host: string } = { text: '', fields: {}, component: '', host: '' };

  constructor(context: ReadingContext) {
    this.cutter = new JsonCutter(
      (open) => RECORDS.has(open[open.length - 2]?.key ?? '') && open[open.length - 1]!.list,
      AROUND,
      (context.memory as JsonCutterState | undefined) ?? null,
    );
  }
  start(): void {}
  begins(): boolean {
    return true;
  }
  cut(view: string, from: number, last: boolean): Cut | null {
    return this.cutter.next(view, from, last);
  }
  save(): JsonCutterState {
    return this.cutter.state();
  }

  read(text: string, draft: Draft): void {
    draft.message = text;
    const object = parseObject(text);
    if (!object) return;
    const begin = nanos(object.startTimeUnixNano ?? object.timeUnixNano) || nanos(object.observedTimeUnixNano);
    if (!(begin > 0)) return;
    const around = this.surroundings();
    draft.at = begin;
    draft.timeText = String(object.startTimeUnixNano ?? object.timeUnixNano ?? object.observedTimeUnixNano);
    draft.component = around.component;
    draft.host = around.host;
    const fields: Fields = { ...around.fields };
    attributes(object.attributes, fields);
    for (const name of ['traceId', 'spanId', 'parentSpanId', 'traceState'] as const)
      if (typeof object[name] === 'string' && object[name] !== '') fields[name] = object[name];
    draft.fields = fields;
    draft.understood = true;
    if (object.startTimeUnixNano !== undefined) this.span(object, begin, draft);
    else log(object, draft);
  }

  private span(object: Record<string, unknown>, begin: number, draft: Draft): void {
    const end = nanos(object.endTimeUnixNano);
    draft.took = end >= begin ? end - begin : NaN;
    draft.begins = true;
    const status = (object.status ?? {}) as { code?: number | string; message?: string };
    const failed = status.code === 2 || status.code === 'STATUS_CODE_ERROR';
    draft.level = failed ? 5 : 3;
    const kind =
      typeof object.kind === 'number'
        ? KINDS[object.kind]
        : String(object.kind ?? '')
            .replace(/^SPAN_KIND_/, '')
            .toLowerCase();
    if (kind && kind !== 'unspecified') draft.fields['span.kind'] = kind;
    const lines = [[String(object.name ?? ''), status.message ?? ''].filter((part) => part !== '').join(': ')];
    for (const event of Array.isArray(object.events) ? (object.events as { name?: string; attributes?: unknown }[]).slice(0, 50) : []) {
      const own: Fields = {};
      attributes(event.attributes, own);
      lines.push(`${event.name ?? 'event'} ${Object.entries(own).map(([name, value]) => `${name}=${String(value)}`).join(' ')}`.trim()); // prettier-ignore
    }
    draft.message = lines.join('\n') || draft.message;
  }

  private surroundings(): typeof this.around {
    const text = [...AROUND].map((name) => this.cutter.kept[name] ?? '').join('\n');
    if (text === this.around.text) return this.around;
    const fields: Fields = {};
    for (const name of AROUND) {
      const object = parseObject(decodeView(this.cutter.kept[name] ?? ''));
      if (!object) continue;
      attributes(object.attributes, fields);
      if (name !== 'resource' && typeof object.name === 'string' && object.name !== '') fields['scope.name'] = object.name;
    }
    const host = String(fields['host.name'] ?? fields['k8s.node.name'] ?? '');
    this.around = { text, fields, component: String(fields['service.name'] ?? ''), host };
    return this.around;
  }
}

function log(object: Record<string, unknown>, draft: Draft): void {
  const number = Number(object.severityNumber ?? 0);
  // four numbers for each level, from 1 for the finest trace
  draft.level = number >= 1 && number <= 24 ? (Math.ceil(number / 4) as Level) : levelOf(String(object.severityText ?? ''));
  const body = valueOf(object.body as Record<string, unknown> | undefined);
  const said = draft.fields['exception.stacktrace'];
  draft.message =
    [body === undefined ? '' : String(body), said === undefined ? '' : String(said)].filter((part) => part !== '').join('\n') || draft.message;
  const logger = draft.fields['scope.name'];
  if (logger !== undefined) draft.logger = String(logger);
}

/** Nanoseconds since 1970, as text or number, in microseconds. */
function nanos(value: unknown): number {
  if (typeof value === 'number') return Math.floor(value / 1000);
  return typeof value === 'string' && /^\d{16,20}$/.test(value) ? Number(value.slice(0, -3)) : NaN;
}

function attributes(list: unknown, into: Fields): void {
  if (!Array.isArray(list)) return;
  for (const { key, value } of list.slice(0, MOST_FIELDS) as Attribute[]) {
    if (typeof key !== 'string') continue;
    const plain = valueOf(value);
    if (plain !== undefined) into[key] = plain;
  }
}

function valueOf(value: Record<string, unknown> | undefined): FieldValue | undefined {
  if (value === undefined || value === null || typeof value !== 'object') return undefined;
  const [name, inner] = Object.entries(value)[0] ?? [];
  if (name === undefined) return undefined;
  if (name === 'intValue') return Number.isSafeInteger(Number(inner)) ? Number(inner) : String(inner);
  if (typeof inner === 'string' || typeof inner === 'number' || typeof inner === 'boolean') return inner;
  return JSON.stringify(inner);
}
