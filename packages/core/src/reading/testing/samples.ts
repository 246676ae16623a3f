import type { LevelName } from '../../units.ts';
import type { Fields } from '../types.ts';
import { DOCUMENT_SAMPLES } from './samples-documents.ts';
import { CONTAINER_SAMPLES } from './samples-containers.ts';
import { HEAD_SAMPLES } from './samples-heads.ts';
import { NAMED_SAMPLES } from './samples-named.ts';
import { ODD_HEAD_SAMPLES } from './samples-odd-heads.ts';
import { PROGRAM_SAMPLES } from './samples-programs.ts';
import { REQUEST_SAMPLES } from './samples-requests.ts';
import { SERVER_SAMPLES } from './samples-servers.ts';
import { TEXT_SAMPLES } from './samples-text.ts';

/** Samples of each format with what has to be read from them: data for the tests of the readers. */
export interface ReadingSample {
  name: string;
  text: string;
  zone?: string;
  /** For times that are a clock alone. */
  firstDay?: number;
  format: string;
  records: { at: string; level: LevelName; message: string; logger?: string; took?: number; component?: string; host?: string; fields?: Fields }[];
}

const COMMON: ReadingSample[] = [
  {
    name: 'text with level, thread and logger, a stack trace behind',
    format: 'text',
    text: [
      '2026-11-24 10:41:58,938 INFO  [exec-12] o.b.OrderIntake - registered LX-204817, 2 lenses',
      '2026-11-24 10:42:07,741 ERROR [exec-12] o.b.StepRunner - step reserve failed',
      'example.OrderFailedException: order LX-204817 could not be reserved',
      '\tat example.ReserveStep.run(ReserveStep.java:88)',
      'Caused by: example.ReserveException: timeout',
      '2026-11-24 10:42:08,000 DEBUG [timer-1] o.b.Housekeeping - swept 3 handles in 12 ms',
    ].join('\n'),
    records: [
      {
        at: '2026-11-24T09:41:58.938000Z',
        level: 'info',
        message: 'registered LX-204817, 2 lenses',
        logger: 'o.b.OrderIntake',
        fields: { thread: 'exec-12' },
      },
      {
        at: '2026-11-24T09:42:07.741000Z',
        level: 'error',
        logger: 'o.b.StepRunner',
        message:
          'step reserve failed\nexample.OrderFailedException: order LX-204817 could not be reserved\n\tat example.ReserveStep.run(ReserveStep.java:88)\nCaused by: example.ReserveException: timeout',
      },
      { at: '2026-11-24T09:42:08.000000Z', level: 'debug', message: 'swept 3 handles in 12 ms', took: 12_000 },
    ],
  },
  {
    name: 'text with bars, day first',
    format: 'text',
    text: '24.11.2026 10:55:50.989 | INFO | asked for order LX-106833 call_id=033904@tel-1\n24.11.2026 10:55:57.399 | WARN | caller="030 23125 417" hears nothing',
    records: [
      {
        at: '2026-11-24T09:55:50.989000Z',
        level: 'info',
        message: 'asked for order LX-106833 call_id=033904@tel-1',
        fields: { call_id: '033904@tel-1' },
      },
      { at: '2026-11-24T09:55:57.399000Z', level: 'warning', message: 'caller="030 23125 417" hears nothing', fields: { caller: '030 23125 417' } },
    ],
  },
  {
    name: 'text with a run in brackets before the level',
    format: 'text',
    zone: 'UTC',
    text: '2026-11-18T02:30:00.000+0100 [PL-0519] INFO PriceListJob: started\n2026-11-18T02:30:07.885+0100 [PL-0519] WARN PriceListJob: rejected 1 rows',
    records: [
      { at: '2026-11-18T01:30:00.000000Z', level: 'info', message: 'started', logger: 'PriceListJob', fields: { thread: 'PL-0519' } },
      { at: '2026-11-18T01:30:07.885000Z', level: 'warning', message: 'rejected 1 rows', logger: 'PriceListJob' },
    ],
  },
  {
    name: 'JSON lines, nested, with offset',
    format: 'json-lines',
    text: '{"@timestamp":"2026-11-24T10:41:58.941+01:00","level":"info","message":"order accepted LX-204817","service":{"name":"shop-portal","host":"app-1"},"http":{"traceparent":"00-6f3c-01"},"lenses":2}\n{"ts":"2026-11-24T09:41:59.701Z","severity":"error","msg":"reserve failed","message":"m-7f3a90","took":8.5}',
    records: [
      {
        at: '2026-11-24T09:41:58.941000Z',
        level: 'info',
        message: 'order accepted LX-204817',
        fields: { 'service.host': 'app-1', 'http.traceparent': '00-6f3c-01', lenses: 2 },
      },
      { at: '2026-11-24T09:41:59.701000Z', level: 'error', message: 'reserve failed', took: 8500, fields: { message: 'm-7f3a90' } },
    ],
  },
  {
    name: 'JSON lines with epoch milliseconds, numeric levels and a stack',
    format: 'json-lines',
    text: '{"time":1795513318912,"level":50,"msg":"it broke","name":"lens-calc","stack":"Error: no\\n    at one"}',
    records: [{ at: '2026-11-24T09:41:58.912000Z', level: 'error', message: 'it broke\nError: no\n    at one', logger: 'lens-calc' }],
  },
  {
    name: 'key=value lines',
    format: 'logfmt',
    text: 'ts=2026-11-24T09:41:59.001234Z level=info broker=bus-1 event=enqueued queue=calc.request message=m-7f3a90\nts=2026-11-24T09:41:59.002Z level=warn msg="queue is \\"deep\\"" depth=41 took=12ms',
    records: [
      {
        at: '2026-11-24T09:41:59.001234Z',
        level: 'info',
        message: 'broker=bus-1 event=enqueued queue=calc.request message=m-7f3a90',
        fields: { message: 'm-7f3a90', queue: 'calc.request' },
      },
      { at: '2026-11-24T09:41:59.002000Z', level: 'warning', message: 'queue is "deep"', took: 12_000, fields: { depth: 41 } },
    ],
  },
  {
    name: 'combined access log',
    format: 'access-log',
    text: '192.0.2.1 - - [24/Nov/2026:10:41:58 +0100] "GET /catalogue/3 HTTP/1.1" 200 5120 "-" "Mozilla/5.0 (X11)"\n192.0.2.1 - ann [24/Nov/2026:10:41:59 +0100] "POST /orders HTTP/1.1" 503 12 "-" "curl/8"',
    records: [
      {
        at: '2026-11-24T09:41:58.000000Z',
        level: 'info',
        message: 'GET /catalogue/3 HTTP/1.1 200 5120',
        fields: { status: 200, path: '/catalogue/3', agent: 'Mozilla/5.0 (X11)' },
      },
      { at: '2026-11-24T09:41:59.000000Z', level: 'error', message: 'POST /orders HTTP/1.1 503 12', fields: { user: 'ann', status: 503 } },
    ],
  },
  {
    name: 'PostgreSQL csvlog with line breaks inside a statement',
    format: 'postgresql-csvlog',
    zone: 'UTC',
    text: '2026-11-24 10:42:07.709 CET,"lab","labdb",5512,"10.7.0.13:50122",673f1a2b.1588,4,"UPDATE",2026-11-24 09:00:00 CET,3/1004,88213,ERROR,55P03,"canceling statement due to lock timeout",,,,,"while updating tuple (311,7)","update stock_blank\nset reserved = ""x""",,,"blank-store","client backend",,0\n2026-11-24 10:42:08.000 CET,"lab","labdb",5512,"10.7.0.13:50122",673f1a2b.1588,5,"UPDATE",2026-11-24 09:00:00 CET,3/1005,0,LOG,00000,"duration: 2.913 ms  execute <unnamed>: select 1",,,,,,,,,"blank-store","client backend",,0',
    records: [
      {
        at: '2026-11-24T09:42:07.709000Z',
        level: 'error',
        message: 'canceling statement due to lock timeout',
        fields: { sqlstate: '55P03', session: '673f1a2b.1588', pid: 5512, query: 'update stock_blank\nset reserved = "x"' },
      },
      { at: '2026-11-24T09:42:08.000000Z', level: 'info', message: 'duration: 2.913 ms  execute <unnamed>: select 1', took: 2913 },
    ],
  },
  {
    name: 'PostgreSQL jsonlog, under the names of csvlog',
    format: 'postgresql-jsonlog',
    text: '{"timestamp":"2026-11-24 10:42:07.709 CET","user":"lab","dbname":"labdb","pid":5512,"session_id":"673f1a2b.1588","line_num":4,"error_severity":"ERROR","state_code":"55P03","message":"canceling statement due to lock timeout","backend_type":"client backend"}',
    records: [
      {
        at: '2026-11-24T09:42:07.709000Z',
        level: 'error',
        message: 'canceling statement due to lock timeout',
        fields: { sqlstate: '55P03', session: '673f1a2b.1588', database: 'labdb' },
      },
    ],
  },
  {
    name: 'SIP messages under a line with time and direction',
    format: 'sip-trace',
    text: [
      '2026-11-24 08:30:07.115833 tel-1 recv 198.51.100.108:5060 -> 192.0.2.1:5060 udp',
      'INVITE sip:+493023125100@voice.example SIP/2.0',
      'i: abc@tel-1',
      'From: <sip:+493023125332@voice.example>;tag=1',
      'To: <sip:+493023125100@voice.example>',
      'CSeq: 1 INVITE',
      'Content-Length: 6',
      '',
      'v=0',
      '',
      '2026-11-24 08:30:26.496000 tel-1 send 192.0.2.1:5060 -> 198.51.100.108:5060 udp',
      'SIP/2.0 488 Not Acceptable Here',
      'Call-ID: abc@tel-1',
      'CSeq: 2 INVITE',
      'Warning: 304 phone',
      ' "media type not available"',
      '',
    ].join('\n'),
    records: [
      {
        at: '2026-11-24T07:30:07.115833Z',
        level: 'info',
        message:
          'INVITE sip:+493023125100@voice.example SIP/2.0\ni: abc@tel-1\nFrom: <sip:+493023125332@voice.example>;tag=1\nTo: <sip:+493023125100@voice.example>\nCSeq: 1 INVITE\nContent-Length: 6\n\nv=0',
        fields: { 'call-id': 'abc@tel-1', method: 'INVITE', direction: 'in', peer: '198.51.100.108:5060' },
      },
      {
        at: '2026-11-24T07:30:26.496000Z',
        level: 'warning',
        message: 'SIP/2.0 488 Not Acceptable Here\nCall-ID: abc@tel-1\nCSeq: 2 INVITE\nWarning: 304 phone\n "media type not available"',
        fields: { status: 488, direction: 'out', peer: '198.51.100.108:5060', warning: '304 phone "media type not available"' },
      },
    ],
  },
];

export const SAMPLES: ReadingSample[] = [
  ...COMMON,
  ...TEXT_SAMPLES,
  ...HEAD_SAMPLES,
  ...PROGRAM_SAMPLES,
  ...SERVER_SAMPLES,
  ...REQUEST_SAMPLES,
  ...CONTAINER_SAMPLES,
  ...DOCUMENT_SAMPLES,
  ...NAMED_SAMPLES,
  ...ODD_HEAD_SAMPLES,
];
