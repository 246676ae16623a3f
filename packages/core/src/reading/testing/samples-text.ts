import type { ReadingSample } from './samples.ts';

/** Plain text in the layouts that programs of many kinds write. */
export const TEXT_SAMPLES: ReadingSample[] = [
  {
    name: 'level before the time, both in brackets',
    format: 'text',
    text: '[INFO ] [2026-11-24 10:41:58.912] [main] example.Start - up\n[WARN ] [2026-11-24 10:41:59.000] [pool-2] example.Jobs - late\n[ERROR] [2026-11-24 10:42:00.001] [pool-2] example.Jobs - gone',
    records: [
      { at: '2026-11-24T09:41:58.912000Z', level: 'info', message: 'up', logger: 'example.Start', fields: { thread: 'main' } },
      { at: '2026-11-24T09:41:59.000000Z', level: 'warning', message: 'late', logger: 'example.Jobs', fields: { thread: 'pool-2' } },
      { at: '2026-11-24T09:42:00.001000Z', level: 'error', message: 'gone' },
    ],
  },
  {
    name: 'process number, three hyphens, thread in brackets, logger before a colon',
    format: 'text',
    text: '2026-11-24T10:41:58.912+01:00  INFO 4711 --- [io-8080-exec-1] c.example.OrderControl    : got LX-204817\n2026-11-24T10:41:59.001+01:00 ERROR 4711 --- [io-8080-exec-2] c.example.OrderControl    : no: refused',
    records: [
      {
        at: '2026-11-24T09:41:58.912000Z',
        level: 'info',
        message: 'got LX-204817',
        logger: 'c.example.OrderControl',
        fields: { pid: 4711, thread: 'io-8080-exec-1' },
      },
      { at: '2026-11-24T09:41:59.001000Z', level: 'error', message: 'no: refused', logger: 'c.example.OrderControl' },
    ],
  },
  {
    name: 'time and logger on one line, level and message on the next, 12 hours',
    format: 'text',
    text: 'Nov 24, 2026 10:41:58 AM example.lens.Start main\nINFO: lens works are up\nNov 24, 2026 1:02:03 PM example.lens.Start main\nSEVERE: it broke\njava.lang.IllegalStateException: no\n\tat example.lens.Start.main(Start.java:3)',
    records: [
      { at: '2026-11-24T09:41:58.000000Z', level: 'info', message: 'lens works are up', logger: 'example.lens.Start', fields: { method: 'main' } },
      {
        at: '2026-11-24T12:02:03.000000Z',
        level: 'error',
        message: 'it broke\njava.lang.IllegalStateException: no\n\tat example.lens.Start.main(Start.java:3)',
      },
    ],
  },
  {
    name: 'the same in German',
    format: 'text',
    text: 'Nov. 24, 2026 10:41:58 AM example.lens.Start main\nINFORMATION: läuft\nDez. 01, 2026 1:02:03 PM example.lens.Start main\nSCHWERWIEGEND: zerbrochen',
    records: [
      { at: '2026-11-24T09:41:58.000000Z', level: 'info', message: 'läuft', logger: 'example.lens.Start' },
      { at: '2026-12-01T12:02:03.000000Z', level: 'error', message: 'zerbrochen' },
    ],
  },
  {
    name: 'logger, level and message between hyphens, comma before the milliseconds',
    format: 'text',
    text: '2026-11-24 10:41:58,912 - lens.calc - INFO - ready\n2026-11-24 10:41:59,001 - lens.calc.prism - WARNING - slow: took 812 ms\n2026-11-24 10:42:00,001 - lens.calc - ERROR - failed\nTraceback (most recent call last):\n  File "calc.py", line 3, in run\nValueError: prism',
    records: [
      { at: '2026-11-24T09:41:58.912000Z', level: 'info', message: 'ready', logger: 'lens.calc' },
      { at: '2026-11-24T09:41:59.001000Z', level: 'warning', message: 'slow: took 812 ms', logger: 'lens.calc.prism', took: 812_000 },
      {
        at: '2026-11-24T09:42:00.001000Z',
        level: 'error',
        message: 'failed\nTraceback (most recent call last):\n  File "calc.py", line 3, in run\nValueError: prism',
      },
    ],
  },
  {
    name: 'level, logger and message with nothing but colons between',
    format: 'text',
    text: '2026-11-24 10:41:58,912 INFO:lens.calc:order LX-204817: ready\n2026-11-24 10:41:59,001 ERROR:lens.calc:failed\n2026-11-24 10:41:59,002 INFO:root:at the end',
    records: [
      { at: '2026-11-24T09:41:58.912000Z', level: 'info', message: 'order LX-204817: ready', logger: 'lens.calc' },
      { at: '2026-11-24T09:41:59.001000Z', level: 'error', message: 'failed', logger: 'lens.calc' },
      { at: '2026-11-24T09:41:59.002000Z', level: 'info', message: 'at the end', logger: 'root' },
    ],
  },
  {
    name: 'a letter for the level, month and day in digits, no year',
    format: 'text',
    text: 'I1124 10:41:58.912345    4711 order.go:88] took LX-204817\nE1124 10:41:59.000001    4711 order.go:90] gave up',
    records: [
      { at: '2026-11-24T09:41:58.912345Z', level: 'info', message: 'took LX-204817', fields: { pid: 4711 } },
      { at: '2026-11-24T09:41:59.000001Z', level: 'error', message: 'gave up' },
    ],
  },
  {
    name: 'epoch milliseconds first',
    format: 'text',
    text: '1795513318912 INFO lens-calc prism of 2.5 for LX-204817\n1795513319001 ERROR lens-calc no solution',
    records: [
      { at: '2026-11-24T09:41:58.912000Z', level: 'info', message: 'lens-calc prism of 2.5 for LX-204817' },
      { at: '2026-11-24T09:41:59.001000Z', level: 'error', message: 'lens-calc no solution' },
    ],
  },
  {
    name: 'bars with thread and logger',
    format: 'text',
    text: '2026-11-24 10:41:58.912|INFO |main|example.Start|up and running\n2026-11-24 10:41:59.000|WARN |exec-7|example.Jobs|late by 3',
    records: [
      {
        at: '2026-11-24T09:41:58.912000Z',
        level: 'info',
        message: 'up and running',
        logger: 'example.Start',
        fields: { thread: 'main' },
      },
      { at: '2026-11-24T09:41:59.000000Z', level: 'warning', message: 'late by 3', logger: 'example.Jobs', fields: { thread: 'exec-7' } },
    ],
  },
  {
    name: 'month first, told by a day above 12',
    format: 'text',
    text: '11/09/2026 10:41:58 INFO nine\n11/24/2026 10:41:59 INFO twenty-four\n',
    records: [
      { at: '2026-11-09T09:41:58.000000Z', level: 'info', message: 'nine' },
      { at: '2026-11-24T09:41:59.000000Z', level: 'info', message: 'twenty-four' },
    ],
  },
  {
    name: 'colours of a terminal, carriage returns',
    format: 'text',
    text: '\x1b[32m2026-11-24 10:41:58\x1b[0m \x1b[1;31mERROR\x1b[0m [worker-1] broken \x1b[4mhere\x1b[0m\r\n\x1b[32m2026-11-24 10:41:59\x1b[0m \x1b[1;34mINFO\x1b[0m [worker-1] mended\r\n',
    records: [
      { at: '2026-11-24T09:41:58.000000Z', level: 'error', message: 'broken here', fields: { thread: 'worker-1' } },
      { at: '2026-11-24T09:41:59.000000Z', level: 'info', message: 'mended' },
    ],
  },
  {
    name: 'a clock alone, over midnight',
    format: 'text',
    zone: 'UTC',
    firstDay: Date.UTC(2026, 10, 23) / 86_400_000,
    text: '23:59:59.500 INFO cell: last of the day\n00:00:00.250 WARN cell: first of the next\n',
    records: [
      { at: '2026-11-23T23:59:59.500000Z', level: 'info', message: 'last of the day', logger: 'cell' },
      { at: '2026-11-24T00:00:00.250000Z', level: 'warning', message: 'first of the next', logger: 'cell' },
    ],
  },
  {
    name: 'ctime with weekday and year at the end, process in brackets',
    format: 'text',
    zone: 'UTC',
    text: '[Tue Nov 24 10:41:58.912345 2026] [proxy:error] [pid 811] no answer from cell-1\n[Tue Nov 24 10:41:59.000000 2026] [core:notice] [pid 811] on with it',
    records: [
      { at: '2026-11-24T10:41:58.912345Z', level: 'error', logger: 'proxy', message: 'no answer from cell-1', fields: { pid: 811 } },
      { at: '2026-11-24T10:41:59.000000Z', level: 'info', logger: 'core', message: 'on with it' },
    ],
  },
  {
    name: 'French',
    format: 'text',
    text: '24 nov. 2026 10:41:58 ERREUR [atelier-1] commande LX-204817 refusée\n25 nov. 2026 10:41:58 AVERTISSEMENT [atelier-1] lenteur',
    records: [
      { at: '2026-11-24T09:41:58.000000Z', level: 'error', message: 'commande LX-204817 refusée', fields: { thread: 'atelier-1' } },
      { at: '2026-11-25T09:41:58.000000Z', level: 'warning', message: 'lenteur' },
    ],
  },
  {
    name: 'a body of XML and one of JSON go with their line',
    format: 'text',
    text: '2026-11-24 10:41:58,912 INFO sent to partner\n<order id="LX-204817">\n  <lens/>\n</order>\n2026-11-24 10:41:59,912 INFO got back\n{\n  "status": "ok"\n}',
    records: [
      { at: '2026-11-24T09:41:58.912000Z', level: 'info', message: 'sent to partner\n<order id="LX-204817">\n  <lens/>\n</order>' },
      { at: '2026-11-24T09:41:59.912000Z', level: 'info', message: 'got back\n{\n  "status": "ok"\n}' },
    ],
  },
];
