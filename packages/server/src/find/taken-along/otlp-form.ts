import { otlpAttribute, otlpAttributes, otlpResource, otlpSeverity, otlpTraceMember } from '@fadenweg/core/exchange';
import type { RecordText } from '../../evidence/record-texts.ts';
import { ByteWriter } from './byte-writer.ts';
import { buffers, PIECE, type Beside, type RecordForm } from './forms.ts';

const [BEFORE_LINE, AFTER_LINE] = otlpAttribute('log.record.line', 0).split('0') as [string, string];
/** What an object without members is, as the database writes it. */
const NO_MEMBERS = 2;
const PART = buffers({ comma: ',', time: '{"timeUnixNano":"' });
/** Bytes that a scope begins with. */
const SCOPE = 1 << 13;

/** The records of one resource by their loggers. */
type Scopes = Map<string, ByteWriter>;

/** Requests of OTLP (JSON encoding of ExportLogsServiceRequest), a line each: records by who wrote them; one of a strand names the strand's trace. */
export const AS_OTLP: RecordForm = {
  texts: [
    `'000","body":{"stringValue":' || to_json(r.message) || '},"attributes":[${BEFORE_LINE}' || r.line || '${AFTER_LINE}'`,
    `coalesce(r.attributes::text, '{}')`,
  ],
  head: '',
  fixed: ({ source, component, host, environment, level, logger }) => [
    otlpResource(component, host, environment),
    `,${otlpAttribute('log.file.path', source.path)}],${otlpSeverity(level)}`,
    JSON.stringify(logger),
  ],
  shape: () => null,
  identifier: () => null,
  copies: () => null,
  strand: (of) => (of ? `,${otlpTraceMember(of.strand)}}` : '}'),
  *pieces(rows, besideOf) {
    let request = new Request();
    for (const row of rows) {
      request.add(row, besideOf(row));
      if (request.bytes < PIECE) continue;
      yield request.written();
      request = new Request();
    }
    if (request.bytes > 0) yield request.written();
  },
};

/** The records of a request, by resource and logger. Texts are bytes taken for letters (latin1), and written as such: nothing is decoded. */
class Request {
  bytes = 0;
  private readonly resources = new Map<string, Scopes>();
  /** What many records share is the same buffers. */
  private readonly known = new Map<readonly Buffer[], ByteWriter>();

  add({ at, texts: [body, members] }: RecordText, { fixed, strand }: Beside): void {
    const to = this.known.get(fixed) ?? this.scopeOf(fixed);
    const before = to.length;
    if (before > 0) to.add(PART.comma);
    to.add(PART.time);
    to.whole(at);
    to.add(body);
    if (members.length > NO_MEMBERS) to.add(Buffer.from(otlpAttributes(members.toString('latin1')), 'latin1'));
    to.add(fixed[1]!);
    to.add(strand);
    this.bytes += to.length - before;
  }
  private scopeOf(fixed: readonly Buffer[]): ByteWriter {
    const [resource, , logger] = fixed.map((text) => text.toString('latin1')) as [string, string, string];
    const scopes: Scopes = this.resources.get(resource) ?? new Map<string, ByteWriter>();
    this.resources.set(resource, scopes);
    const scope = scopes.get(logger) ?? new ByteWriter(SCOPE);
    scopes.set(logger, scope);
    this.known.set(fixed, scope);
    return scope;
  }

  written(): Buffer {
    const parts: Buffer[] = [];
    const text = (...some: string[]): number => parts.push(Buffer.from(some.join(''), 'latin1'));
    text('{"resourceLogs":[');
    let resourceComma = '';
    for (const [resource, scopes] of this.resources) {
      text(resourceComma, '{"resource":', resource, ',"scopeLogs":[');
      resourceComma = ',';
      let scopeComma = '';
      for (const [logger, records] of scopes) {
        text(scopeComma, '{"scope":{"name":', logger, '},"logRecords":[');
        scopeComma = ',';
        parts.push(records.written());
        text(']}');
      }
      text(']}');
    }
    text(']}\n');
    return Buffer.concat(parts);
  }
}
