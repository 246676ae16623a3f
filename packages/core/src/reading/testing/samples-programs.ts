import type { ReadingSample } from './samples.ts';

/** Lines of programs in layouts of their own: what stands between time and message. */
export const PROGRAM_SAMPLES: ReadingSample[] = [
  {
    name: 'a class with its method before the message, nothing between',
    format: 'text',
    text: [
      '24-Nov-2026 10:00:00.123 INFO [main] example.desk.Intake.start ready in [1234] milliseconds',
      '24-Nov-2026 10:00:01.123 SEVERE [exec-1] example.desk.Intake.take order LX-204817 failed',
      'java.lang.IllegalStateException: no',
      '\tat example.A.b(A.java:1)',
    ].join('\n'),
    records: [
      {
        at: '2026-11-24T09:00:00.123000Z',
        level: 'info',
        logger: 'example.desk.Intake.start',
        message: 'ready in [1234] milliseconds',
        fields: { thread: 'main' },
      },
      {
        at: '2026-11-24T09:00:01.123000Z',
        level: 'error',
        logger: 'example.desk.Intake.take',
        message: 'order LX-204817 failed\njava.lang.IllegalStateException: no\n\tat example.A.b(A.java:1)',
        fields: { thread: 'exec-1' },
      },
    ],
  },
  {
    name: 'thread in eight hexadecimal digits, a name in a column, a letter for the level, the zone behind the time',
    format: 'text',
    text: [
      '[11/24/26 10:00:00:123 CET] 0000007b OrderBean     I   DSK0001I: order LX-204817 taken',
      '[11/24/26 10:00:01:456 CET] 0000007b OrderBean     E   DSK0002E: order LX-204817 failed',
      '[11/24/26 10:00:02:456 CET] 0000007c OrderBean     W   DSK0002W: order LX-204818 late',
    ].join('\n'),
    records: [
      {
        at: '2026-11-24T09:00:00.123000Z',
        level: 'info',
        logger: 'OrderBean',
        message: 'DSK0001I: order LX-204817 taken',
        fields: { thread: '0000007b' },
      },
      {
        at: '2026-11-24T09:00:01.456000Z',
        level: 'error',
        logger: 'OrderBean',
        message: 'DSK0002E: order LX-204817 failed',
        fields: { thread: '0000007b' },
      },
      {
        at: '2026-11-24T09:00:02.456000Z',
        level: 'warning',
        logger: 'OrderBean',
        message: 'DSK0002W: order LX-204818 late',
        fields: { thread: '0000007c' },
      },
    ],
  },
  {
    name: 'process behind a hash inside the brackets of the time, two hyphens and a colon',
    format: 'text',
    text: [
      'I, [2026-11-24T10:00:00.123456 #1234]  INFO -- : order LX-204817 taken',
      'E, [2026-11-24T10:00:01.123456 #1234] ERROR -- desk: order LX-204817 failed',
    ].join('\n'),
    records: [
      { at: '2026-11-24T09:00:00.123456Z', level: 'info', message: 'order LX-204817 taken', fields: { pid: 1234 } },
      { at: '2026-11-24T09:00:01.123456Z', level: 'error', message: 'desk: order LX-204817 failed', fields: { pid: 1234 } },
    ],
  },
  {
    name: 'level in brackets behind a thread’s number, among further brackets',
    format: 'text',
    text: [
      '2026-11-24T09:00:00.123456Z 0 [System] [LB-010116] [Server] ready for connections',
      '2026-11-24T09:00:01.123456Z 7 [Warning] [LB-010055] [Server] address could not be resolved',
    ].join('\n'),
    records: [
      {
        at: '2026-11-24T09:00:00.123456Z',
        level: 'info',
        message: 'ready for connections',
        logger: 'Server',
        fields: { pid: 0, context: 'LB-010116' },
      },
      {
        at: '2026-11-24T09:00:01.123456Z',
        level: 'warning',
        message: 'address could not be resolved',
        logger: 'Server',
        fields: { pid: 7, context: 'LB-010055' },
      },
    ],
  },
  {
    name: 'clock and level in one pair of brackets',
    format: 'text',
    text: ['[10:00:00 INF] order LX-204817 taken', '[10:00:01 ERR] order LX-204817 failed'].join('\n'),
    records: [
      { at: '2026-12-30T09:00:00.000000Z', level: 'info', message: 'order LX-204817 taken' },
      { at: '2026-12-30T09:00:01.000000Z', level: 'error', message: 'order LX-204817 failed' },
    ],
  },
  {
    name: 'logger before a bracket that holds nothing',
    format: 'text',
    text: [
      '2026-11-24 10:00:00,123 [7] INFO  Desk.Orders [(null)] - order LX-204817 taken',
      '2026-11-24 10:00:01,123 [7] ERROR Desk.Orders [(null)] - order LX-204817 failed',
    ].join('\n'),
    records: [
      {
        at: '2026-11-24T09:00:00.123000Z',
        level: 'info',
        logger: 'Desk.Orders',
        message: 'order LX-204817 taken',
        fields: { pid: 7 },
      },
      {
        at: '2026-11-24T09:00:01.123000Z',
        level: 'error',
        logger: 'Desk.Orders',
        message: 'order LX-204817 failed',
        fields: { pid: 7 },
      },
    ],
  },
  {
    name: 'tabs between level, place and message',
    format: 'text',
    text: [
      '2026-11-24T10:00:00.123+0100\tINFO\tdesk/orders.go:12\torder LX-204817 taken\t{"order": "LX-204817"}',
      '2026-11-24T10:00:01.123+0100\tERROR\tdesk/orders.go:12\torder LX-204817 failed\t{"order": "LX-204817"}',
    ].join('\n'),
    records: [
      { at: '2026-11-24T09:00:00.123000Z', level: 'info', logger: 'desk/orders.go:12', message: 'order LX-204817 taken\t{"order": "LX-204817"}' },
      { at: '2026-11-24T09:00:01.123000Z', level: 'error', logger: 'desk/orders.go:12', message: 'order LX-204817 failed\t{"order": "LX-204817"}' },
    ],
  },
  {
    name: 'modules with double colons',
    format: 'text',
    text: [
      '2026-11-24T09:00:00.123456Z  INFO desk::orders: order LX-204817 taken order="LX-204817"',
      '2026-11-24T09:00:01.123456Z ERROR desk::orders: order LX-204817 failed order="LX-204817"',
    ].join('\n'),
    records: [
      {
        at: '2026-11-24T09:00:00.123456Z',
        level: 'info',
        logger: 'desk::orders',
        message: 'order LX-204817 taken order="LX-204817"',
        fields: { order: 'LX-204817' },
      },
      {
        at: '2026-11-24T09:00:01.123456Z',
        level: 'error',
        logger: 'desk::orders',
        message: 'order LX-204817 failed order="LX-204817"',
        fields: { order: 'LX-204817' },
      },
    ],
  },
  {
    name: 'time, level and module in one pair of brackets',
    format: 'text',
    text: [
      '[2026-11-24T09:00:00Z INFO  desk::orders] order LX-204817 taken',
      '[2026-11-24T09:00:01Z ERROR desk::orders] order LX-204817 failed',
    ].join('\n'),
    records: [
      { at: '2026-11-24T09:00:00.000000Z', level: 'info', logger: 'desk::orders', message: 'order LX-204817 taken' },
      { at: '2026-11-24T09:00:01.000000Z', level: 'error', logger: 'desk::orders', message: 'order LX-204817 failed' },
    ],
  },
  {
    name: 'channel and level with a point between',
    format: 'text',
    text: [
      '[2026-11-24T10:00:00.123456+01:00] app.INFO: order LX-204817 taken {"order":"LX-204817"} []',
      '[2026-11-24T10:00:01.123456+01:00] app.ERROR: order LX-204817 failed {"order":"LX-204817"} []',
    ].join('\n'),
    records: [
      { at: '2026-11-24T09:00:00.123456Z', level: 'info', logger: 'app', message: 'order LX-204817 taken {"order":"LX-204817"} []' },
      { at: '2026-11-24T09:00:01.123456Z', level: 'error', logger: 'app', message: 'order LX-204817 failed {"order":"LX-204817"} []' },
    ],
  },
  {
    name: 'the name of a zone behind the time',
    format: 'text',
    text: [
      '[24-Nov-2026 10:00:00 Europe/Berlin] Warning:  no price for LX-204817',
      '[24-Nov-2026 10:00:01 Europe/Berlin] Error:  no price at all',
    ].join('\n'),
    records: [
      { at: '2026-11-24T09:00:00.000000Z', level: 'warning', message: 'no price for LX-204817' },
      { at: '2026-11-24T09:00:01.000000Z', level: 'error', message: 'no price at all' },
    ],
  },
  {
    name: 'level and thread before the time, file and line behind it',
    format: 'text',
    text: [
      'INFO  [main] 2026-11-24 10:00:00,123 Daemon.java:77 - order LX-204817 taken',
      'WARN  [Stage-1] 2026-11-24 10:00:01,123 Daemon.java:78 - order LX-204817 late',
    ].join('\n'),
    records: [
      { at: '2026-11-24T09:00:00.123000Z', level: 'info', logger: 'Daemon.java:77', message: 'order LX-204817 taken', fields: { thread: 'main' } },
      {
        at: '2026-11-24T09:00:01.123000Z',
        level: 'warning',
        logger: 'Daemon.java:78',
        message: 'order LX-204817 late',
        fields: { thread: 'Stage-1' },
      },
    ],
  },
  {
    name: 'year, month and day with blanks between',
    format: 'text',
    text: [
      '#2.0#2026 11 24 10:00:00:123#+0100#Error#/Applications/Desk##desk##C000##order LX-204817 failed#',
      '#2.0#2026 11 24 10:00:01:123#+0100#Info#/Applications/Desk##desk##C000##order LX-204817 taken#',
    ].join('\n'),
    records: [
      {
        at: '2026-11-24T09:00:00.123000Z',
        level: 'none',
        message: '#+0100#Error#/Applications/Desk##desk##C000##order LX-204817 failed#',
        fields: { prefix: '#2.0#' },
      },
      {
        at: '2026-11-24T09:00:01.123000Z',
        level: 'none',
        message: '#+0100#Info#/Applications/Desk##desk##C000##order LX-204817 taken#',
        fields: { prefix: '#2.0#' },
      },
    ],
  },
  {
    name: 'pairs between time and level',
    format: 'text',
    text: [
      '2026-11-24T09:00:00.123Z pid=77 tid=abc class=PolishJob jid=b4a577edbccf1d805744efa9 INFO: start',
      '2026-11-24T09:00:01.123Z pid=77 tid=abc class=PolishJob jid=b4a577edbccf1d805744efa9 elapsed=1.0 INFO: done',
    ].join('\n'),
    records: [
      {
        at: '2026-11-24T09:00:00.123000Z',
        level: 'info',
        message: 'start',
        fields: { pid: 77, tid: 'abc', class: 'PolishJob', jid: 'b4a577edbccf1d805744efa9' },
      },
      {
        at: '2026-11-24T09:00:01.123000Z',
        level: 'info',
        message: 'done',
        fields: { pid: 77, tid: 'abc', class: 'PolishJob', jid: 'b4a577edbccf1d805744efa9' },
      },
    ],
  },
  {
    name: 'level with the process in brackets glued to it',
    format: 'text',
    text: [
      '[2026-11-24 10:00:00] NOTICE[1234][C-0000007]: chan.c:77 handle: Call from +4930123 to 456 rejected',
      '[2026-11-24 10:00:01] WARNING[1234]: chan.c:78 handle: Timeout',
    ].join('\n'),
    records: [
      {
        at: '2026-11-24T09:00:00.000000Z',
        level: 'info',
        message: '[C-0000007]: chan.c:77 handle: Call from +4930123 to 456 rejected',
        fields: { pid: 1234 },
      },
      { at: '2026-11-24T09:00:01.000000Z', level: 'warning', message: 'chan.c:78 handle: Timeout', fields: { pid: 1234 } },
    ],
  },
  {
    name: 'file and line between level and message',
    format: 'text',
    text: [
      '2026-11-24 10:00:00.123456 [ERR] bridge.c:77 Call 0d1b2c3d-4e5f-6071-8293-a4b5c6d7e8f9 failed',
      '2026-11-24 10:00:01.123456 [NOTICE] bridge.c:78 Hangup',
    ].join('\n'),
    records: [
      { at: '2026-11-24T09:00:00.123456Z', level: 'error', logger: 'bridge.c:77', message: 'Call 0d1b2c3d-4e5f-6071-8293-a4b5c6d7e8f9 failed' },
      { at: '2026-11-24T09:00:01.123456Z', level: 'info', logger: 'bridge.c:78', message: 'Hangup' },
    ],
  },
  {
    name: 'month and day with a hyphen, process and thread in columns, a letter for the level',
    format: 'text',
    text: [
      '11-24 10:00:00.123  1234  1250 E Orders  : order LX-204817 failed',
      '11-24 10:00:01.123  1234  1250 I Orders  : order LX-204818 taken',
    ].join('\n'),
    records: [
      {
        at: '2026-11-24T09:00:00.123000Z',
        level: 'error',
        logger: 'Orders',
        message: 'order LX-204817 failed',
        fields: { pid: 1234, thread: '1250' },
      },
      { at: '2026-11-24T09:00:01.123000Z', level: 'info', logger: 'Orders', message: 'order LX-204818 taken', fields: { pid: 1234, thread: '1250' } },
    ],
  },
  {
    name: 'the clock before the date',
    format: 'text',
    text: ['10:00:00 24-11-2026 job ship started', '10:00:05 24-11-2026 job ship ended rc=0'].join('\n'),
    records: [
      { at: '2026-11-24T09:00:00.000000Z', level: 'none', message: 'job ship started' },
      { at: '2026-11-24T09:00:05.000000Z', level: 'none', message: 'job ship ended rc=0', fields: { rc: 0 } },
    ],
  },
  {
    name: 'the day by its number in the year',
    format: 'text',
    text: ['2026.328 10:00:00.12 JOB00077  POLISH STARTED', '2026.328 10:00:05.12 JOB00077  POLISH ENDED - RC=0000'].join('\n'),
    records: [
      { at: '2026-11-24T09:00:00.120000Z', level: 'none', message: 'JOB00077  POLISH STARTED' },
      { at: '2026-11-24T09:00:05.120000Z', level: 'none', message: 'JOB00077  POLISH ENDED - RC=0000', fields: { RC: '0000' } },
    ],
  },
  {
    name: 'time and level in quotes',
    format: 'text',
    text: [
      '"2026-11-24 10:00:00.123" "INFO" "desk" "order LX-204817 taken"',
      '"2026-11-24 10:00:01.123" "ERROR" "desk" "order LX-204817 failed"',
    ].join('\n'),
    records: [
      { at: '2026-11-24T09:00:00.123000Z', level: 'info', message: '"desk" "order LX-204817 taken"' },
      { at: '2026-11-24T09:00:01.123000Z', level: 'error', message: '"desk" "order LX-204817 failed"' },
    ],
  },
  {
    name: 'commas between, no header',
    format: 'text',
    text: ['2026-11-24 10:00:00.123,INFO,desk,"order LX-204817, taken"', '2026-11-24 10:00:01.123,ERROR,desk,"order LX-204817, failed"'].join('\n'),
    records: [
      { at: '2026-11-24T09:00:00.123000Z', level: 'info', message: 'desk,"order LX-204817, taken"' },
      { at: '2026-11-24T09:00:01.123000Z', level: 'error', message: 'desk,"order LX-204817, failed"' },
    ],
  },
];
