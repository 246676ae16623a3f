import { otlpAttribute, otlpAttributes, otlpResource, otlpSeverity, otlpTraceMember } from '@fadenweg/core';
import type { RecordText } from '../../repositories/record-texts.ts';
import { PIECE, type Beside, type RecordForm } from './forms.ts';

const [BEFORE_LINE, AFTER_LINE] = otlpAttribute('log.record.line', 0).split('0') as [string, string];
/** What an object without members is, as the database writes it. */
const NO_MEMBERS = 2;

/** The records of one resource by their loggers, each as its parts. */
type Scopes = Map<string, Buffer[][]>;

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
    let [resources, bytes] = [new Map<string, Scopes>(), 0];
    for (const row of rows) {
      const beside = besideOf(row);
      const resource = beside.fixed[0].toString();
      let scopes = resources.get(resource);
      if (!scopes) resources.set(resource, (scopes = new Map()));
      const logger = row.texts[1].toString();
      const record = partsOf(row, beside);
      const own = scopes.get(logger);
      if (own) own.push(record);
      else scopes.set(logger, [record]);
      for (const part of record) bytes += part.length;
      if (bytes < PIECE) continue;
      yield requestOf(resources);
      [resources, bytes] = [new Map<string, Scopes>(), 0];
    }
    if (bytes > 0) yield requestOf(resources);
  },
};

const END_RECORD = Buffer.from('}');
function partsOf({ texts: [head, , members] }: RecordText, { fixed, strand }: Beside): Buffer[] {
  const parts = [head];
  if (members.length > NO_MEMBERS) parts.push(Buffer.from(otlpAttributes(JSON.parse(members.toString()) as Record<string, unknown>)));
  parts.push(fixed[1]);
  if (strand) parts.push(strand);
  parts.push(END_RECORD);
  return parts;
}

function requestOf(resources: ReadonlyMap<string, Scopes>): Buffer {
  const parts: Buffer[] = [];
  const text = (...some: string[]): number => parts.push(Buffer.from(some.join('')));
  text('{"resourceLogs":[');
  let resourceComma = '';
  for (const [resource, scopes] of resources) {
    text(resourceComma, '{"resource":', resource, ',"scopeLogs":[');
    resourceComma = ',';
    let scopeComma = '';
    for (const [logger, records] of scopes) {
      text(scopeComma, '{"scope":{"name":', logger, '},"logRecords":[');
      scopeComma = ',';
      records.forEach((record, i) => {
        if (i > 0) parts.push(COMMA);
        parts.push(...record);
      });
      text(']}');
    }
    text(']}');
  }
  text(']}\n');
  return Buffer.concat(parts);
}
const COMMA = Buffer.from(',');
