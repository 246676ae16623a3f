import type { Reader, RecordReader, ReadingContext, Sample } from './types.ts';
import { accessLog } from './formats/access-log.ts';
import { containerLines } from './formats/container-lines.ts';
import { httpWire } from './formats/http-wire.ts';
import { journalExport } from './formats/journal-export.ts';
import { jsonDocuments } from './formats/json-documents.ts';
import { jsonLines } from './formats/json-lines.ts';
import { labelled } from './formats/labelled.ts';
import { logfmt } from './formats/logfmt.ts';
import { otlpJson } from './formats/otlp-json.ts';
import { pgCsvlog } from './formats/pg-csvlog.ts';
import { pgJsonlog } from './formats/pg-jsonlog.ts';
import { pgStderr } from './formats/pg-stderr.ts';
import { plain } from './formats/plain.ts';
import { sipTrace } from './formats/sip-trace.ts';
import { slowStatements } from './formats/slow-statements.ts';
import { syslog } from './formats/syslog.ts';
import { table } from './formats/table.ts';
import { text } from './formats/text.ts';
import { xes } from './formats/xes.ts';
import { xmlEvents } from './formats/xml-events.ts';
import { w3cExtended } from './formats/w3c-extended.ts';

export { sampleOf } from './sample.ts';

/** Formats whose records are made of lines, as programs write them. */
const OF_LINES: readonly Reader[] = [pgCsvlog, pgJsonlog, pgStderr, jsonLines, accessLog, syslog, logfmt, text, plain];

/** Every format that is read. A further one is added here and nowhere else. */
const READERS: readonly Reader[] = [
  journalExport,
  containerLines(OF_LINES),
  pgCsvlog,
  pgJsonlog,
  pgStderr,
  otlpJson,
  jsonLines,
  jsonDocuments,
  xes,
  xmlEvents,
  w3cExtended,
  accessLog,
  syslog,
  labelled,
  logfmt,
  table,
  slowStatements,
  sipTrace,
  httpWire,
  text,
  plain,
];

export const FORMATS: readonly string[] = READERS.map((reader) => reader.format);

export interface FormatGuess {
  format: string;
  /** 0 to 1. */
  confidence: number;
}

/** How likely each format is for a sample, the likeliest first; formats that surely do not fit are left out. */
export function guessFormats(sample: Sample): FormatGuess[] {
  return READERS.map((reader) => ({ format: reader.format, confidence: reader.confidence(sample) }))
    .filter((guess) => guess.confidence > 0)
    .sort((a, b) => b.confidence - a.confidence);
}

/** @throws RangeError for a format that is not in FORMATS */
export function openReader(format: string, sample: Sample, context: ReadingContext): RecordReader {
  const reader = READERS.find((candidate) => candidate.format === format);
  if (!reader) throw new RangeError(`no reader for the format “${format}”`);
  return reader.open(sample, context);
}

/** Whether the sample's times lack the day, so that it has to be found elsewhere. */
export const lacksDay = (format: string, sample: Sample): boolean =>
  READERS.find((candidate) => candidate.format === format)?.lacksDay?.(sample) ?? false;
