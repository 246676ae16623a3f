import type { Draft, Reader, RecordReader, ReadingContext, Sample } from './shared.ts';
import { levelOfStatus } from '../levels.ts';
import { directionOf } from './sip-trace.ts';
import { learnLayout, text, TextReader } from './text.ts';

const START = /^[ \t]*(?:(GET|POST|PUT|PATCH|DELETE|HEAD|OPTIONS) (\S+) HTTP\/[\d.]+|HTTP\/[\d.]+ (\d{3}) ?(.*))$/m;
const KEPT = new Set([
  'host',
  'content-type',
  'content-length',
  'soapaction',
  'x-request-id',
  'traceparent',
  'x-correlation-id',
  'user-agent',
  'location',
  'retry-after',
]);
/** A refusal inside of a body that came with a good status: a SOAP fault, or an element or member that names an error's code. */
const FAULT = /<(?:\w+:)?Fault[\s>]|<(?:\w+:)?(?:faultstring|errorCode|error-code|errorcode)>\s*(?!0+\s*<|OK\b)[^<\s]/i;
const FAULT_CODE = /<(?:\w+:)?(?:faultcode|errorCode|error-code|errorcode|Value)>\s*([^<]{1,80}?)\s*</i;
const FAULT_TEXT = /<(?:\w+:)?(?:faultstring|errorText|error-text|errorMessage|Text)(?:\s[^>]*)?>\s*([^<]{1,400}?)\s*</i;

/** HTTP messages with their bodies as they went over the wire (RFC 9112), each under a line with its time and direction. */
export const httpWire: Reader = {
  format: 'http-wire',
  confidence(sample) {
    const starts = sample.lines.filter((line) => START.test(line)).length;
    if (starts === 0) return 0;
    const layout = learnLayout(sample, { zone: 'UTC', modified: 0 });
    const heads = sample.lines.filter((line) => /^[ \t]*(?:content-type|content-length|host)\s*:/i.test(line)).length;
    return layout && heads >= starts * 0.5 ? 0.96 : 0;
  },
  open: (sample, context) => new HttpWireReader(sample, context),
  lacksDay: (sample) => text.lacksDay!(sample),
};

class HttpWireReader extends TextReader implements RecordReader {
  constructor(sample: Sample, context: ReadingContext) {
    super(context, learnLayout(sample, context));
  }

  override read(record: string, draft: Draft): void {
    super.read(record, draft);
    if (!draft.understood) return;
    const start = START.exec(record);
    if (!start) return;
    const { fields } = draft;
    fields.direction = directionOf(draft.message.slice(0, Math.max(0, draft.message.indexOf('\n'))));
    const message = record.slice(start.index).replace(/\r/g, '');
    const blank = message.indexOf('\n\n');
    for (const line of message
      .slice(0, blank < 0 ? message.length : blank)
      .split('\n')
      .slice(1)) {
      const colon = line.indexOf(':');
      const name = line.slice(0, Math.max(0, colon)).trim().toLowerCase();
      // the header names the far end, not the host that wrote the record
      if (KEPT.has(name)) fields[name === 'host' ? 'authority' : name] = line.slice(colon + 1).trim();
    }
    if (start[1]) {
      fields.method = start[1];
      fields.path = start[2]!;
    } else fields.status = Number(start[3]);
    const body = blank < 0 ? '' : message.slice(blank + 2);
    const refused = FAULT.test(body);
    if (refused) {
      const code = FAULT_CODE.exec(body);
      const said = FAULT_TEXT.exec(body);
      if (code) fields.fault_code = code[1]!;
      if (said) fields.fault = said[1]!;
    }
    if (start[3] || refused) draft.level = refused ? 5 : levelOfStatus(Number(start[3]));
    else if (draft.level === 0) draft.level = 3;
    draft.message = message;
  }
}
