import type { ReadingSample } from './samples.ts';

/** Heads that no standard tells, each learned from its lines. */
export const ODD_HEAD_SAMPLES: ReadingSample[] = [
  {
    name: 'pairs with semicolons between, whose values hold blanks',
    format: 'logfmt',
    text: [
      'time=2026-11-24T10:00:00Z;level=info;msg=order LX-204817 taken;user=4',
      'time=2026-11-24T10:00:01Z;level=error;msg=order LX-204818 failed;user=5',
      'time=2026-11-24T10:00:02Z;level=info;msg=order LX-204819 taken;user=6;',
    ].join('\n'),
    records: [
      { at: '2026-11-24T10:00:00.000000Z', level: 'info', message: 'order LX-204817 taken', fields: { user: 4 } },
      { at: '2026-11-24T10:00:01.000000Z', level: 'error', message: 'order LX-204818 failed', fields: { user: 5 } },
      { at: '2026-11-24T10:00:02.000000Z', level: 'info', message: 'order LX-204819 taken', fields: { user: 6 } },
    ],
  },
  {
    name: 'pairs with bars between, some in quotes that hold a bar',
    format: 'logfmt',
    text: [
      'ts=2026-11-24T10:00:00Z|lvl=info|msg="order LX-204817 | taken"|user=4',
      'ts=2026-11-24T10:00:01Z|lvl=warn|msg="order LX-204818 late"|user=5',
    ].join('\n'),
    records: [
      { at: '2026-11-24T10:00:00.000000Z', level: 'info', message: 'order LX-204817 | taken', fields: { user: 4 } },
      { at: '2026-11-24T10:00:01.000000Z', level: 'warning', message: 'order LX-204818 late', fields: { user: 5 } },
    ],
  },
  {
    name: 'syslog without a colon behind the tag',
    format: 'syslog',
    text: [
      'Nov 24 10:00:00 lw-1 desk order LX-204817 taken',
      'Nov 24 10:00:01 lw-1 desk order LX-204818 priced',
      'Nov 24 10:00:02 lw-1 desk[44] cannot reach store',
      'Nov 24 10:00:03 lw-1 desk order LX-204819 taken',
    ].join('\n'),
    records: [
      { at: '2026-11-24T09:00:00.000000Z', level: 'none', host: 'lw-1', component: 'desk', message: 'order LX-204817 taken' },
      { at: '2026-11-24T09:00:01.000000Z', level: 'none', host: 'lw-1', component: 'desk', message: 'order LX-204818 priced' },
      { at: '2026-11-24T09:00:02.000000Z', level: 'none', host: 'lw-1', component: 'desk', message: 'cannot reach store', fields: { pid: 44 } },
      { at: '2026-11-24T09:00:03.000000Z', level: 'none', host: 'lw-1', component: 'desk', message: 'order LX-204819 taken' },
    ],
  },
  {
    name: 'a letter for the level before a bracket, a colon between blanks behind it',
    format: 'text',
    text: [
      '2026-11-24 10:00:00.123 I(<0.1440.0>:orders:813) : order LX-204817 taken',
      '2026-11-24 10:00:01.123 E(<0.1441.0>:orders:814) : order LX-204818 failed',
      '2026-11-24 10:00:02.123 I(<0.1440.0>:orders:813) : order LX-204819 taken',
    ].join('\n'),
    records: [
      { at: '2026-11-24T09:00:00.123000Z', level: 'info', message: 'order LX-204817 taken' },
      { at: '2026-11-24T09:00:01.123000Z', level: 'error', message: 'order LX-204818 failed' },
      { at: '2026-11-24T09:00:02.123000Z', level: 'info', message: 'order LX-204819 taken' },
    ],
  },
  {
    name: 'a level that is the first word of what is said',
    format: 'text',
    text: [
      '[24-Nov-2026 10:00:00 +0100] desk Fatal error:  no such order LX-204817 in /srv/desk.x on line 3',
      '[24-Nov-2026 10:00:01 +0100] desk Warning:  order LX-204818 is late',
      '[24-Nov-2026 10:00:02 +0100] desk Notice:  order LX-204819 taken',
    ].join('\n'),
    records: [
      { at: '2026-11-24T09:00:00.000000Z', level: 'fatal', message: 'Fatal error:  no such order LX-204817 in /srv/desk.x on line 3' },
      { at: '2026-11-24T09:00:01.000000Z', level: 'warning', message: 'order LX-204818 is late' },
      { at: '2026-11-24T09:00:02.000000Z', level: 'info', message: 'order LX-204819 taken' },
    ],
  },
  {
    name: 'blocks of a system’s journal, a message of two lines with its length before it',
    format: 'journal-export',
    text: [
      '__CURSOR=s=1;i=1',
      '__REALTIME_TIMESTAMP=1795514400123456',
      '_HOSTNAME=lw-1',
      'PRIORITY=3',
      'SYSLOG_IDENTIFIER=desk',
      '_PID=44',
      'MESSAGE=order LX-204817 failed',
      '',
      '__CURSOR=s=1;i=2',
      '__REALTIME_TIMESTAMP=1795514401123456',
      '_HOSTNAME=lw-1',
      'PRIORITY=6',
      'SYSLOG_IDENTIFIER=desk',
      'MESSAGE',
      '\u001a\u0000\u0000\u0000\u0000\u0000\u0000\u0000order LX-204818 taken',
      'with two lenses',
      '',
    ].join('\n'),
    records: [
      { at: '2026-11-24T10:00:00.123456Z', level: 'error', message: 'order LX-204817 failed', host: 'lw-1', component: 'desk', fields: { _PID: 44 } },
      { at: '2026-11-24T10:00:01.123456Z', level: 'info', message: 'order LX-204818 taken\nwith two lenses', host: 'lw-1', component: 'desk' },
    ],
  },
  {
    name: 'milliseconds behind an apostrophe',
    format: 'text',
    text: ["2026-11-24 10:00:00'123 INFO orders - order LX-204817 taken", "2026-11-24 10:00:01'456 ERROR orders - order LX-204818 failed"].join('\n'),
    records: [
      { at: '2026-11-24T09:00:00.123000Z', level: 'info', logger: 'orders', message: 'order LX-204817 taken' },
      { at: '2026-11-24T09:00:01.456000Z', level: 'error', logger: 'orders', message: 'order LX-204818 failed' },
    ],
  },
  {
    name: 'two programs that write into one file, each in its own way',
    format: 'text',
    zone: 'UTC',
    text: [
      '2026-11-24 10:00:00,123 INFO [exec-1] shop.Desk - order LX-204817 taken',
      '[24/Nov/2026:10:00:01 +0000] (store) warning: order LX-204817 is late',
      '2026-11-24 10:00:02,123 ERROR [exec-2] shop.Desk - order LX-204818 failed',
      '\tat shop.Desk.take(Desk.java:88)',
      '[24/Nov/2026:10:00:03 +0000] (store) info: order LX-204818 kept',
      '2026-11-24 10:00:04,123 INFO [exec-1] shop.Desk - order LX-204819 taken',
      '[24/Nov/2026:10:00:05 +0000] (store) info: order LX-204819 kept',
    ].join('\n'),
    records: [
      { at: '2026-11-24T10:00:00.123000Z', level: 'info', logger: 'shop.Desk', message: 'order LX-204817 taken', fields: { thread: 'exec-1' } },
      { at: '2026-11-24T10:00:01.000000Z', level: 'warning', logger: 'store', message: 'order LX-204817 is late' },
      {
        at: '2026-11-24T10:00:02.123000Z',
        level: 'error',
        message: 'order LX-204818 failed\n\tat shop.Desk.take(Desk.java:88)',
        fields: { thread: 'exec-2' },
      },
      { at: '2026-11-24T10:00:03.000000Z', level: 'info', logger: 'store', message: 'order LX-204818 kept' },
      { at: '2026-11-24T10:00:04.123000Z', level: 'info', logger: 'shop.Desk', message: 'order LX-204819 taken' },
      { at: '2026-11-24T10:00:05.000000Z', level: 'info', logger: 'store', message: 'order LX-204819 kept' },
    ],
  },
];
