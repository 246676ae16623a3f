import { otlpAttribute, otlpAttributes, otlpResource, otlpSeverity, otlpTraceMember } from '@fadenweg/core';
import type { RecordText } from '../../repositories/record-texts.ts';
import { PIECE, type Beside, type RecordForm } from './forms.ts';

const [BEFORE_LINE, AFTER_LINE] = otlpAttribute('log.record.line', 0).split('0') as [string, string];
/** What an object without members is, as the database writes it. */
const NO_MEMBERS = 2;

/** The records of one resource by their loggers, as the parts that they are written of. */
type Scopes = Map<string, Buffer[]>;

/** Requests of OTLP (JSON encoding of ExportLogsServiceRequest), a line each: records by who wrote them; one of a strand names the strand's trace. */
export const AS_OTLP: RecordForm = {
  texts: [
    `'{"timeUnixNano":"' || r.at || '000","body":{"stringValue":' || to_json(r.message) || '},"attributes":[${BEFORE_LINE}' || r.line || '${AFTER_LINE}'`,
    `coalesce(to_json(r.logger)::text, '""')`,
    `coalesce(r.attributes::text, '{}')`,
  ],
  head: '',
  fixed: ({ source, component, host, environment, level }) => [
    otlpResource(component, host, environment),
    `,${otlpAttribute('log.file.path', source.path)}],${otlpSeverity(level)}`,
  ],
  shape: () => null,
  identifier: () => null,
  strand: ({ strand }) => `,${otlpTraceMember(strand)}`,
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

const END_RECORD = Buffer.from('}');
const COMMA = Buffer.from(',');

/** The records of a request, by resource and logger. Texts are bytes taken for letters (latin1), and written as such: nothing is decoded. */
class Request {
  bytes = 0;
  private readonly resources = new Map<string, Scopes>();
  /** What many records share is the same buffer. */
  private readonly known = new Map<Buffer, Scopes>();

  add({ texts: [head, loggerText, members] }: RecordText, { fixed, strand }: Beside): void {
    const scopes = this.scopesOf(fixed[0]);
    const logger = loggerText.toString('latin1');
    let parts = scopes.get(logger);
    if (parts) parts.push(COMMA);
    else scopes.set(logger, (parts = []));
    parts.push(head);
    if (members.length > NO_MEMBERS) parts.push(Buffer.from(otlpAttributes(members.toString('latin1')), 'latin1'));
    parts.push(fixed[1]);
    if (strand) parts.push(strand);
    parts.push(END_RECORD);
    this.bytes += head.length + members.length;
  }
  private scopesOf(resource: Buffer): Scopes {
    const known = this.known.get(resource);
    if (known) return known;
    const text = resource.toString('latin1');
    const scopes = this.resources.get(text) ?? new Map<string, Buffer[]>();
    this.resources.set(text, scopes);
    this.known.set(resource, scopes);
    return scopes;
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
        for (const part of records) parts.push(part);
        text(']}');
      }
      text(']}');
    }
    text(']}\n');
    return Buffer.concat(parts);
  }
}
