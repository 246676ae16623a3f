import { csvLine } from '@fadenweg/core';
import type { LevelName } from '@fadenweg/api';
import type { RecordText } from '../../repositories/record-texts.ts';

/** What many records have in common. */
export interface Fixed {
  source: { id: number; path: string };
  component: string;
  host: string;
  environment: string;
  level: LevelName;
  understood: boolean;
  shortened: boolean;
  marks: string[];
}
export interface OfStrand {
  strand: string;
  flow: string | null;
  outcome: string | null;
}
/** What is looked up beside a record, as it is written. */
export interface Beside {
  fixed: readonly [Buffer, Buffer];
  shape: Buffer | undefined;
  identifiers: Buffer[];
  strand: Buffer | undefined;
}

/** How a record is written: the texts that the database makes of it, what is looked up, and how these follow each other. */
export interface RecordForm {
  /** Three expressions over `record r`, for SQL. */
  texts: readonly [string, string, string];
  /** Written before the first record. */
  head: string;
  fixed(of: Fixed): readonly [string, string];
  shape(text: string): string | null;
  identifier(of: { kind: string; value: string; role: string }): string | null;
  strand(of: OfStrand): string;
  /** All of them, in pieces that each stand for themselves. */
  pieces(rows: readonly RecordText[], besideOf: (row: RecordText) => Beside): Generator<Buffer>;
}

/** Bytes are given out in pieces of about this many. */
export const PIECE = 1 << 18;

/** Pieces of whole lines. */
const lines = (write: (row: RecordText, beside: Beside, add: (part: Buffer) => void) => void): RecordForm['pieces'] =>
  function* (rows, besideOf) {
    let parts: Buffer[] = [];
    let bytes = 0;
    const add = (part: Buffer): void => {
      parts.push(part);
      bytes += part.length;
    };
    for (const row of rows) {
      write(row, besideOf(row), add);
      if (bytes < PIECE) continue;
      yield Buffer.concat(parts, bytes);
      [parts, bytes] = [[], 0];
    }
    if (bytes > 0) yield Buffer.concat(parts, bytes);
  };

const AT = `to_char(timestamp 'epoch' + r.at * interval '1 microsecond', 'YYYY-MM-DD"T"HH24:MI:SS.US"Z"')`;
/** Where it begins in its source, as its id tells. */
const BYTE = `(r.id & ${2 ** 36 - 1})`;
/** The members of an object as JSON, without its braces. */
const inside = (members: object): string => JSON.stringify(members).slice(1, -1);
const [OPEN, IDENTIFIERS, COMMA, SHAPE, NO_SHAPE, DECLARED, CARRIED, NO_STRAND, END] = [
  '{',
  ',"identifiers":[',
  ',',
  '],"shape":',
  '""',
  ',"leg":1,"because":"declared"}\n',
  ',"leg":1,"because":"carried-over"}\n',
  ',"strand":null,"flow":null,"outcome":null,"leg":null,"because":null}\n',
  '\r\n',
].map((text) => Buffer.from(text)) as [Buffer, Buffer, Buffer, Buffer, Buffer, Buffer, Buffer, Buffer, Buffer];

/** A line with the JSON object of the API. */
export const AS_JSON: RecordForm = {
  texts: [
    `'"id":"' || r.at || '-' || r.id || '","at":"' || ${AT} || '","originalAt":' || to_json(r.time_text)
       || ',"correctedByMs":' || coalesce((r.shifted / 1000.0)::float8, 0) || ',"logger":' || to_json(r.logger) || ',"message":' || to_json(r.message)
       || ',"attributes":' || coalesce(r.attributes::text, '{}') || ',"tookMs":' || coalesce((r.took / 1000.0)::float8::text, 'null')`,
    `'"line":' || r.line || ',"byteFrom":' || ${BYTE} || ',"byteTo":' || ${BYTE} + r.length`,
    `''`,
  ],
  head: '',
  fixed: ({ source, ...rest }) => [`,"source":{${inside(source)},`, `},${inside(rest)}`],
  shape: (text) => JSON.stringify(text),
  identifier: ({ kind, value, role }) => JSON.stringify({ kind, value, role }),
  strand: (of) => `,${inside(of)}`,
  pieces: lines(({ texts: [body, place], carried }, { fixed, shape, identifiers, strand }, add) => {
    for (const part of [OPEN, body, fixed[0], place, fixed[1], IDENTIFIERS]) add(part);
    identifiers.forEach((one, i) => {
      if (i > 0) add(COMMA);
      add(one);
    });
    add(SHAPE);
    add(shape ?? NO_SHAPE);
    if (strand) add(strand);
    add(strand ? (carried ? CARRIED : DECLARED) : NO_STRAND);
  }),
};

/** A text as a cell, with an apostrophe in front of what a spreadsheet would run as a formula. */
const cell = (text: string): string =>
  `'"' || case when ${text} ~ '^([=+@\\t\\r]|-(?![0-9]))' then '''' else '' end || replace(${text}, '"', '""') || '"'`;

/** A line of CSV. */
export const AS_CSV: RecordForm = {
  texts: [
    `r.at || '-' || r.id || ',' || ${AT} || ',' || ${cell('r.time_text')}`,
    cell('r.logger'),
    `r.line || ',' || ${cell('r.message')} || ',' || ${cell(`coalesce(r.attributes::text, '{}')`)}`,
  ],
  head: 'id,at,originalAt,component,host,environment,level,logger,strand,source,line,message,attributes\r\n',
  fixed: ({ source, component, host, environment, level }) => [`,${csvLine([component, host, environment, level])},`, `,${csvLine([source.path])},`],
  shape: () => null,
  identifier: () => null,
  strand: (of) => csvLine([of.strand]),
  pieces: lines(({ texts: [head, logger, tail] }, { fixed, strand }, add) => {
    for (const part of [head, fixed[0], logger, COMMA]) add(part);
    if (strand) add(strand);
    for (const part of [fixed[1], tail, END]) add(part);
  }),
};
