import type { ReadingSample } from './samples.ts';

/** Records of named fields, under names of many makers. */
export const NAMED_SAMPLES: ReadingSample[] = [
  {
    name: 'a letter for the level, the time one level deeper',
    format: 'json-lines',
    text: [
      '{"t":{"$date":"2026-11-24T10:00:00.123+00:00"},"s":"I","c":"NETWORK","id":22943,"ctx":"listener","msg":"Connection accepted","attr":{"remote":"10.0.0.7:5555","connectionId":7}}',
      '{"t":{"$date":"2026-11-24T10:00:01.123+00:00"},"s":"W","c":"COMMAND","id":51803,"ctx":"conn7","msg":"Slow query","attr":{"durationMillis":1234}}',
    ].join('\n'),
    records: [
      {
        at: '2026-11-24T10:00:00.123000Z',
        level: 'info',
        message: 'Connection accepted',
        fields: { c: 'NETWORK', id: 22943, ctx: 'listener', 'attr.remote': '10.0.0.7:5555' },
      },
      {
        at: '2026-11-24T10:00:01.123000Z',
        level: 'warning',
        message: 'Slow query',
        took: 1234000,
        fields: { c: 'COMMAND', id: 51803, ctx: 'conn7', 'attr.durationMillis': 1234 },
      },
    ],
  },
  {
    name: 'a journal in JSON: priority, name and host in capitals',
    format: 'json-lines',
    text: [
      '{"__REALTIME_TIMESTAMP":"1795514400123456","PRIORITY":"3","SYSLOG_IDENTIFIER":"desk","_HOSTNAME":"app-1","_PID":"77","MESSAGE":"order LX-204817 failed"}',
      '{"__REALTIME_TIMESTAMP":"1795514401123456","PRIORITY":"6","SYSLOG_IDENTIFIER":"desk","_HOSTNAME":"app-1","_PID":"77","MESSAGE":"order LX-204818 taken"}',
    ].join('\n'),
    records: [
      {
        at: '2026-11-24T10:00:00.123456Z',
        level: 'error',
        logger: 'desk',
        component: 'desk',
        host: 'app-1',
        message: 'order LX-204817 failed',
        fields: { _HOSTNAME: 'app-1', _PID: '77' },
      },
      {
        at: '2026-11-24T10:00:01.123456Z',
        level: 'info',
        logger: 'desk',
        component: 'desk',
        host: 'app-1',
        message: 'order LX-204818 taken',
        fields: { _HOSTNAME: 'app-1', _PID: '77' },
      },
    ],
  },
  {
    name: 'a template of a message with the values of its fields',
    format: 'json-lines',
    text: [
      '{"@t":"2026-11-24T09:00:00.1234567Z","@mt":"order {Order} taken","@l":"Warning","Order":"LX-204817","SourceContext":"Desk.Orders"}',
      '{"@t":"2026-11-24T09:00:01.1234567Z","@mt":"order {Order} failed","@l":"Error","@x":"System.Exception: no\\n   at A.B()","Order":"LX-204817"}',
    ].join('\n'),
    records: [
      {
        at: '2026-11-24T09:00:00.123456Z',
        level: 'warning',
        logger: 'Desk.Orders',
        message: 'order LX-204817 taken',
        fields: { Order: 'LX-204817' },
      },
      {
        at: '2026-11-24T09:00:01.123456Z',
        level: 'error',
        message: 'order LX-204817 failed\nSystem.Exception: no\n   at A.B()',
        fields: { Order: 'LX-204817' },
      },
    ],
  },
  {
    name: 'a time under a name that nobody knows',
    format: 'json-lines',
    text: [
      '{"type":"order","host":"app-1","gate_datetime":"2026-11-24T10:00:00.123+0100","loglevel":"ERROR","message":"order LX-204817 failed","gate_sequence":"1_0001"}',
      '{"type":"order","host":"app-1","gate_datetime":"2026-11-24T10:00:01.123+0100","loglevel":"INFO","message":"order LX-204818 taken"}',
    ].join('\n'),
    records: [
      {
        at: '2026-11-24T09:00:00.123000Z',
        level: 'error',
        host: 'app-1',
        message: 'order LX-204817 failed',
        fields: { type: 'order', host: 'app-1', gate_sequence: '1_0001' },
      },
      { at: '2026-11-24T09:00:01.123000Z', level: 'info', host: 'app-1', message: 'order LX-204818 taken', fields: { type: 'order', host: 'app-1' } },
    ],
  },
  {
    name: 'nanoseconds as a text',
    format: 'json-lines',
    text: [
      '{"severityText":"ERROR","body":"order LX-204817 failed","timeUnixNano":"1795514400123456789","traceId":"4bf92f3577b34da6a3ce929d0e0e4736","spanId":"00f067aa0ba902b7"}',
      '{"severityText":"INFO","body":"order LX-204818 taken","timeUnixNano":"1795514401123456789"}',
    ].join('\n'),
    records: [
      {
        at: '2026-11-24T10:00:00.123456Z',
        level: 'error',
        message: 'order LX-204817 failed',
        fields: { traceId: '4bf92f3577b34da6a3ce929d0e0e4736', spanId: '00f067aa0ba902b7' },
      },
      { at: '2026-11-24T10:00:01.123456Z', level: 'info', message: 'order LX-204818 taken' },
    ],
  },
  {
    name: 'a request and its answer without any words',
    format: 'json-lines',
    text: [
      '{"start_time":"2026-11-24T09:00:00.123Z","method":"GET","path":"/orders/LX-204817","response_code":504,"duration":1234,"cell_host":"10.0.0.8:8080","x_request_id":"0d1b2c3d-4e5f-6071-8293-a4b5c6d7e8f9"}',
      '{"start_time":"2026-11-24T09:00:01.123Z","method":"GET","path":"/orders/LX-204818","response_code":200,"duration":12}',
    ].join('\n'),
    records: [
      {
        at: '2026-11-24T09:00:00.123000Z',
        level: 'error',
        message: 'GET /orders/LX-204817 504',
        took: 1234000,
        fields: { method: 'GET', path: '/orders/LX-204817', response_code: 504, duration: 1234 },
      },
      {
        at: '2026-11-24T09:00:01.123000Z',
        level: 'info',
        message: 'GET /orders/LX-204818 200',
        took: 12000,
        fields: { method: 'GET', path: '/orders/LX-204818', response_code: 200, duration: 12 },
      },
    ],
  },
  {
    name: 'cells with their names, tabs between',
    format: 'labelled-tabs',
    text: [
      'tskv\ttimestamp=2026-11-24T10:00:00\tlevel=INFO\ttext=order LX-204817 taken\tmodule=desk',
      'tskv\ttimestamp=2026-11-24T10:00:01\tlevel=ERROR\ttext=order LX-204817 failed\tmodule=desk',
    ].join('\n'),
    records: [
      { at: '2026-11-24T09:00:00.000000Z', level: 'info', logger: 'desk', message: 'order LX-204817 taken' },
      { at: '2026-11-24T09:00:01.000000Z', level: 'error', logger: 'desk', message: 'order LX-204817 failed' },
    ],
  },
  {
    name: 'labels and values, tabs between',
    format: 'labelled-tabs',
    text: [
      'time:2026-11-24T10:00:00+01:00\thost:10.0.0.7\tstatus:200\treqtime:0.123\treq:GET /orders/LX-204817 HTTP/1.1',
      'time:2026-11-24T10:00:01+01:00\thost:10.0.0.7\tstatus:504\treqtime:1.123\treq:GET /orders/LX-204818 HTTP/1.1',
    ].join('\n'),
    records: [
      {
        at: '2026-11-24T09:00:00.000000Z',
        level: 'info',
        message: 'GET /orders/LX-204817 HTTP/1.1 200',
        took: 123000,
        fields: { host: '10.0.0.7', status: 200, reqtime: 0.123, req: 'GET /orders/LX-204817 HTTP/1.1' },
      },
      {
        at: '2026-11-24T09:00:01.000000Z',
        level: 'error',
        message: 'GET /orders/LX-204818 HTTP/1.1 504',
        took: 1123000,
        fields: { host: '10.0.0.7', status: 504, reqtime: 1.123, req: 'GET /orders/LX-204818 HTTP/1.1' },
      },
    ],
  },
  {
    name: 'a time before an object',
    format: 'text',
    text: ['2026-11-24T09:00:00Z {"level":"error","message":"no price"}', '2026-11-24T09:00:01Z {"level":"info","message":"on"}'].join('\n'),
    records: [
      { at: '2026-11-24T09:00:00.000000Z', level: 'error', message: 'no price' },
      { at: '2026-11-24T09:00:01.000000Z', level: 'info', message: 'on' },
    ],
  },
  {
    name: 'seconds and nanoseconds in fields of their own',
    format: 'json-lines',
    text: [
      '{"severity":"ERROR","timestamp":{"seconds":1795514400,"nanos":123000000},"message":"no price"}',
      '{"severity":"INFO","timestamp":{"seconds":1795514401,"nanos":123000000},"message":"on"}',
    ].join('\n'),
    records: [
      {
        at: '2026-11-24T10:00:00.123000Z',
        level: 'error',
        message: 'no price',
        fields: { 'timestamp.nanos': 123000000 },
      },
      { at: '2026-11-24T10:00:01.123000Z', level: 'info', message: 'on', fields: { 'timestamp.nanos': 123000000 } },
    ],
  },
  {
    name: 'an instant in two fields, what was thrown in an object',
    format: 'json-lines',
    text: [
      '{"instant":{"epochSecond":1795514400,"nanoOfSecond":123456789},"thread":"main","level":"ERROR","loggerName":"e.Desk","message":"no price","thrown":{"message":"none","name":"example.NoPrice","extendedStackTrace":"example.NoPrice: none\\n\\tat a.B(C.java:1)"}}',
      '{"instant":{"epochSecond":1795514401,"nanoOfSecond":123456789},"thread":"main","level":"INFO","loggerName":"e.Desk","message":"on"}',
    ].join('\n'),
    records: [
      {
        at: '2026-11-24T10:00:00.123456Z',
        level: 'error',
        logger: 'e.Desk',
        message: 'no price\nexample.NoPrice: none\n\tat a.B(C.java:1)',
        fields: { 'instant.nanoOfSecond': 123456789, thread: 'main', 'thrown.message': 'none', 'thrown.name': 'example.NoPrice' },
      },
      {
        at: '2026-11-24T10:00:01.123456Z',
        level: 'info',
        logger: 'e.Desk',
        message: 'on',
        fields: { 'instant.nanoOfSecond': 123456789, thread: 'main' },
      },
    ],
  },
  {
    name: 'lines of text, whole, as messages',
    format: 'json-lines',
    text: [
      '{"timestamp":1795514400123,"message":"2026-11-24T09:00:00.123Z\\tERROR\\tno price","logStream":"a"}',
      '{"timestamp":1795514401123,"message":"2026-11-24T09:00:01.123Z\\tINFO\\ton","logStream":"a"}',
    ].join('\n'),
    records: [
      { at: '2026-11-24T10:00:00.123000Z', level: 'error', message: 'no price', fields: { logStream: 'a' } },
      { at: '2026-11-24T10:00:01.123000Z', level: 'info', message: 'on', fields: { logStream: 'a' } },
    ],
  },
  {
    name: 'a program in every object',
    format: 'json-lines',
    text: [
      '{"time":"2026-11-24T10:00:00Z","level":"info","hostname":"lw-1","service":"desk","msg":"order LX-204817 taken"}',
      '{"time":"2026-11-24T10:00:01Z","level":"error","hostname":"lw-1","service":"desk","msg":"order LX-204818 failed"}',
    ].join('\n'),
    records: [
      { at: '2026-11-24T10:00:00.000000Z', level: 'info', component: 'desk', host: 'lw-1', message: 'order LX-204817 taken' },
      { at: '2026-11-24T10:00:01.000000Z', level: 'error', component: 'desk', host: 'lw-1', message: 'order LX-204818 failed' },
    ],
  },
  {
    name: 'what is called is no program of its own',
    format: 'json-lines',
    text: [
      '{"time":"2026-11-24T10:00:00Z","level":"info","msg":"calls store","service":"store"}',
      '{"time":"2026-11-24T10:00:01Z","level":"info","msg":"order LX-204818 taken"}',
    ].join('\n'),
    records: [
      { at: '2026-11-24T10:00:00.000000Z', level: 'info', component: '', message: 'calls store', fields: { service: 'store' } },
      { at: '2026-11-24T10:00:01.000000Z', level: 'info', component: '', message: 'order LX-204818 taken' },
    ],
  },
  {
    name: 'a program in every line of pairs',
    format: 'logfmt',
    text: [
      'ts=2026-11-24T10:00:00Z level=info app=desk msg="order LX-204817 taken"',
      'ts=2026-11-24T10:00:01Z level=error app=desk msg="order LX-204818 failed"',
    ].join('\n'),
    records: [
      { at: '2026-11-24T10:00:00.000000Z', level: 'info', component: 'desk', message: 'order LX-204817 taken' },
      { at: '2026-11-24T10:00:01.000000Z', level: 'error', component: 'desk', message: 'order LX-204818 failed' },
    ],
  },
];
