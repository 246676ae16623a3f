import { csvLine } from '@fadenweg/core/exchange';
import type { LevelName, WeightName } from '@fadenweg/api';
import type { RecordText } from '../../evidence/record-texts.ts';
import { ByteWriter } from './byte-writer.ts';

/** What many records have in common. */
export interface Fixed {
  source: { id: number; path: string };
  component: string;
  host: string;
  environment: string;
  level: LevelName;
  logger: string;
  understood: boolean;
  timeFrom: 'told' | 'neighbour' | 'file';
  shortened: boolean;
  marks: string[];
  /** As it was read; what people say weighs otherwise does not count here. */
  weight: WeightName;
}
export interface OfStrand {
  strand: string;
  flow: string | null;
  outcome: string | null;
}
/** What is looked up beside a record, as it is written. */
export interface Beside {
  fixed: readonly Buffer[];
  shape: Buffer | undefined;
  identifiers: Buffer[];
  /** Ids of records that tell the same event. */
  copies: Buffer;
  /** What is written of the strand and how the record belongs to it, or that it belongs to none. */
  strand: Buffer;
}

/** How a record is written: the texts that the database makes of it, what is looked up, and how these follow each other. */
export interface RecordForm {
  /** Two expressions over `record r`, for SQL. */
  texts: readonly [string, string];
  /** Written before the first record. */
  head: string;
  /** What stands around the rest, in as many texts as the form wants. */
  fixed(of: Fixed): readonly string[];
  shape(text: string): string | null;
  identifier(of: { kind: string; value: string; role: string }): string | null;
  copies(ids: readonly string[]): string | null;
  /** @param of null for a record of no strand */
  strand(of: OfStrand | null, carried: boolean): string;
  /** All of them, in pieces that each stand for themselves. */
  pieces(rows: readonly RecordText[], besideOf: (row: RecordText) => Beside): Generator<Buffer>;
}

/** Bytes are given out in pieces of about this many. */
export const PIECE = 1 << 18;

/** Pieces of whole lines. */
const lines = (write: (row: RecordText, beside: Beside, to: ByteWriter) => void): RecordForm['pieces'] =>
  function* (rows, besideOf) {
    const writer = new ByteWriter(PIECE + (PIECE >> 2));
    for (const row of rows) {
      write(row, besideOf(row), writer);
      if (writer.length >= PIECE) yield writer.taken();
    }
    if (writer.length > 0) yield writer.taken();
  };

/** Where it begins in its source, as its id tells. */
const BYTE = `(r.id & ${2 ** 36 - 1})`;
/** The members of an object as JSON, without its braces. */
const inside = (members: object): string => JSON.stringify(members).slice(1, -1);
export const buffers = <const Texts extends Record<string, string>>(texts: Texts): Record<keyof Texts, Buffer> =>
  Object.fromEntries(Object.entries(texts).map(([name, text]) => [name, Buffer.from(text)])) as Record<keyof Texts, Buffer>;
const COMMA = Buffer.from(',');
const DASH = Buffer.from('-');
function idAndTime({ at, id }: RecordText, between: Buffer, to: ByteWriter): void {
  to.whole(at);
  to.add(DASH);
  to.whole(id);
  to.add(between);
  to.instant(at);
}
const JSON_PART = buffers({ id: '{"id":"', at: '","at":"', noShape: '],"shape":""' });

/** A line with the JSON object of the API. */
export const AS_JSON: RecordForm = {
  texts: [
    `'","originalAt":' || to_json(r.time_text) || ',"correctedByMs":' || coalesce((r.shifted / 1000.0)::float8::text, '0') || ',"message":' || to_json(r.message)
       || ',"attributes":' || coalesce(r.attributes::text, '{}') || ',"tookMs":' || coalesce((r.took / 1000.0)::float8::text, 'null')`,
    `'"line":' || r.line || ',"byteFrom":' || ${BYTE} || ',"byteTo":' || ${BYTE} + r.length`,
  ],
  head: '',
  fixed: ({ source, logger, ...rest }) => [`,"logger":${JSON.stringify(logger)},"source":{${inside(source)},`, `},${inside(rest)},"identifiers":[`],
  shape: (text) => `],"shape":${JSON.stringify(text)}`,
  identifier: ({ kind, value, role }) => JSON.stringify({ kind, value, role }),
  copies: (ids) => `,"copies":${JSON.stringify(ids)}`,
  strand: (of, carried) =>
    `,${inside(of ? { ...of, leg: null, because: carried ? 'carried-over' : 'declared' } : { strand: null, flow: null, outcome: null, leg: null, because: null })}}\n`,
  pieces: lines((row, { fixed, shape, identifiers, copies, strand }, to) => {
    const [body, place] = row.texts;
    to.add(JSON_PART.id);
    idAndTime(row, JSON_PART.at, to);
    to.add(body);
    to.add(fixed[0]!);
    to.add(place);
    to.add(fixed[1]!);
    for (let i = 0; i < identifiers.length; i++) {
      if (i > 0) to.add(COMMA);
      to.add(identifiers[i]!);
    }
    to.add(shape ?? JSON_PART.noShape);
    to.add(copies);
    to.add(strand);
  }),
};

/** A text as a cell, with an apostrophe in front of what a spreadsheet would run as a formula. */
const cell = (text: string): string =>
  `'"' || case when ${text} ~ '^([=+@\\t\\r]|-(?![0-9]))' then '''' else '' end || replace(${text}, '"', '""') || '"'`;

/** A line of CSV. */
export const AS_CSV: RecordForm = {
  texts: [
    `',' || ${cell('r.time_text')}`,
    `r.line || ',' || ${cell('r.message')} || ',' || ${cell(`coalesce(r.attributes::text, '{}')`)} || e'\\r\\n'`,
  ],
  head: 'id,at,originalAt,component,host,environment,level,logger,strand,source,line,message,attributes\r\n',
  fixed: ({ source, component, host, environment, level, logger }) => [
    `,${csvLine([component, host, environment, level, logger])},`,
    `,${csvLine([source.path])},`,
  ],
  shape: () => null,
  identifier: () => null,
  copies: () => null,
  strand: (of) => (of ? csvLine([of.strand]) : ''),
  pieces: lines((row, { fixed, strand }, to) => {
    const [original, rest] = row.texts;
    idAndTime(row, COMMA, to);
    to.add(original);
    to.add(fixed[0]!);
    to.add(strand);
    to.add(fixed[1]!);
    to.add(rest);
  }),
};
