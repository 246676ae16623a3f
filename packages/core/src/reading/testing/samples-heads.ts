import type { ReadingSample } from './samples.ts';

/** Heads of lines: brackets, bars, colons and pairs in any order. */
export const HEAD_SAMPLES: ReadingSample[] = [
  {
    name: 'an offset and the name of the zone in brackets of its own',
    format: 'text',
    text: ['[2026-11-24T10:00:00.123+01:00[Europe/Berlin]] INFO desk - a', '[2026-11-24T10:00:01.123+01:00[Europe/Berlin]] WARN desk - b'].join('\n'),
    records: [
      { at: '2026-11-24T09:00:00.123000Z', level: 'info', logger: 'desk', message: 'a' },
      { at: '2026-11-24T09:00:01.123000Z', level: 'warning', logger: 'desk', message: 'b' },
    ],
  },
  {
    name: 'the thread before the time',
    format: 'text',
    text: [
      '[main] 2026-11-24 10:00:00,123 INFO example.Desk - order taken',
      '[exec-1] 2026-11-24 10:00:01,123 ERROR example.Desk - order failed',
    ].join('\n'),
    records: [
      { at: '2026-11-24T09:00:00.123000Z', level: 'info', logger: 'example.Desk', message: 'order taken', fields: { thread: 'main' } },
      { at: '2026-11-24T09:00:01.123000Z', level: 'error', logger: 'example.Desk', message: 'order failed', fields: { thread: 'exec-1' } },
    ],
  },
  {
    name: 'pairs in brackets, none in some lines',
    format: 'text',
    text: [
      '2026-11-24 10:00:00,123 INFO  [exec-1] [order=LX-204817, user=ann] example.Desk - taken',
      '2026-11-24 10:00:01,123 ERROR [exec-2] [] example.Desk - failed',
    ].join('\n'),
    records: [
      {
        at: '2026-11-24T09:00:00.123000Z',
        level: 'info',
        logger: 'example.Desk',
        message: 'taken',
        fields: { thread: 'exec-1', order: 'LX-204817', user: 'ann' },
      },
      { at: '2026-11-24T09:00:01.123000Z', level: 'error', logger: 'example.Desk', message: 'failed', fields: { thread: 'exec-2' } },
    ],
  },
  {
    name: 'two identifiers in brackets are no thread',
    format: 'text',
    text: [
      '2026-11-24 10:00:00.123 [4bf92f3577b34da6a3ce929d0e0e4736,00f067aa0ba902b7] INFO example.Desk - taken',
      '2026-11-24 10:00:01.123 [4bf92f3577b34da6a3ce929d0e0e4736,00f067aa0ba902b7] WARN example.Desk - late',
    ].join('\n'),
    records: [
      {
        at: '2026-11-24T09:00:00.123000Z',
        level: 'info',
        logger: 'example.Desk',
        message: 'taken',
        fields: { context: '4bf92f3577b34da6a3ce929d0e0e4736,00f067aa0ba902b7' },
      },
      {
        at: '2026-11-24T09:00:01.123000Z',
        level: 'warning',
        logger: 'example.Desk',
        message: 'late',
        fields: { context: '4bf92f3577b34da6a3ce929d0e0e4736,00f067aa0ba902b7' },
      },
    ],
  },
  {
    name: 'bars without blanks, one word for who speaks',
    format: 'text',
    text: ['1795514400123|INFO|desk|order taken', '1795514401123|ERROR|desk|order failed'].join('\n'),
    records: [
      { at: '2026-11-24T10:00:00.123000Z', level: 'info', logger: 'desk', message: 'order taken' },
      { at: '2026-11-24T10:00:01.123000Z', level: 'error', logger: 'desk', message: 'order failed' },
    ],
  },
  {
    name: 'twelve hours, month first',
    format: 'text',
    text: ['11/24/2026 10:00:00.123 PM INFO order taken', '11/24/2026 11:00:01.123 PM ERROR order failed'].join('\n'),
    records: [
      { at: '2026-11-24T21:00:00.123000Z', level: 'info', message: 'order taken' },
      { at: '2026-11-24T22:00:01.123000Z', level: 'error', message: 'order failed' },
    ],
  },
  {
    name: 'a level in German, a year in two digits',
    format: 'text',
    text: ['24.11.26 10:00:00 [WARNUNG] Auftrag LX-204817 verspätet', '24.11.26 10:00:01 [INFO] weiter'].join('\n'),
    records: [
      { at: '2026-11-24T09:00:00.000000Z', level: 'warning', message: 'Auftrag LX-204817 verspätet' },
      { at: '2026-11-24T09:00:01.000000Z', level: 'info', message: 'weiter' },
    ],
  },
  {
    name: 'a colon before the milliseconds',
    format: 'text',
    text: ['2026-11-24 10:00:00:123 INFO taken', '2026-11-24 10:00:01:123 ERROR failed'].join('\n'),
    records: [
      { at: '2026-11-24T09:00:00.123000Z', level: 'info', message: 'taken' },
      { at: '2026-11-24T09:00:01.123000Z', level: 'error', message: 'failed' },
    ],
  },
  {
    name: 'a method with its file and line',
    format: 'text',
    text: [
      '2026-11-24 10:00:00,123 DEBUG example.Desk.take(Desk.java:88) - entering',
      '2026-11-24 10:00:01,123 DEBUG example.Desk.take(Desk.java:91) - leaving',
    ].join('\n'),
    records: [
      { at: '2026-11-24T09:00:00.123000Z', level: 'debug', logger: 'example.Desk.take(Desk.java:88)', message: 'entering' },
      { at: '2026-11-24T09:00:01.123000Z', level: 'debug', logger: 'example.Desk.take(Desk.java:91)', message: 'leaving' },
    ],
  },
  {
    name: 'a class and its method with double colons',
    format: 'text',
    text: ['2026-11-24 10:00:00.123 INFO Desk::take - taken', '2026-11-24 10:00:01.123 ERROR Desk::take - failed'].join('\n'),
    records: [
      { at: '2026-11-24T09:00:00.123000Z', level: 'info', logger: 'Desk::take', message: 'taken' },
      { at: '2026-11-24T09:00:01.123000Z', level: 'error', logger: 'Desk::take', message: 'failed' },
    ],
  },
  {
    name: 'a time, then nothing but pairs',
    format: 'text',
    text: [
      '2026-11-24T10:00:00Z level=info msg="order taken" order=LX-204817',
      '2026-11-24T10:00:01Z level=error msg="order failed" order=LX-204817',
    ].join('\n'),
    records: [
      { at: '2026-11-24T10:00:00.000000Z', level: 'info', message: 'order taken', fields: { order: 'LX-204817' } },
      {
        at: '2026-11-24T10:00:01.000000Z',
        level: 'error',
        message: 'order failed',
        fields: { order: 'LX-204817' },
      },
    ],
  },
  {
    name: 'module, function and line between bars and hyphen',
    format: 'text',
    text: [
      '2026-11-24 10:00:00.123 | ERROR    | desk.intake:take:88 - no price',
      '2026-11-24 10:00:01.123 | INFO     | desk.intake:take:91 - on',
    ].join('\n'),
    records: [
      { at: '2026-11-24T09:00:00.123000Z', level: 'error', logger: 'desk.intake:take:88', message: 'no price' },
      { at: '2026-11-24T09:00:01.123000Z', level: 'info', logger: 'desk.intake:take:91', message: 'on' },
    ],
  },
  {
    name: 'level and process in the brackets of the time',
    format: 'text',
    text: [
      '[2026-11-24 10:00:00,123: ERROR/Worker-1] Task desk.take[0d1b2c3d-4e5f-6071-8293-a4b5c6d7e8f9] raised unexpected',
      '[2026-11-24 10:00:01,123: INFO/Main] Task desk.take[0d1b2c3d-4e5f-6071-8293-a4b5c6d7e8f9] received',
    ].join('\n'),
    records: [
      {
        at: '2026-11-24T09:00:00.123000Z',
        level: 'error',
        message: 'Task desk.take[0d1b2c3d-4e5f-6071-8293-a4b5c6d7e8f9] raised unexpected',
        fields: { thread: 'Worker-1' },
      },
      {
        at: '2026-11-24T09:00:01.123000Z',
        level: 'info',
        message: 'Task desk.take[0d1b2c3d-4e5f-6071-8293-a4b5c6d7e8f9] received',
        fields: { thread: 'Main' },
      },
    ],
  },
  {
    name: 'a letter, a name in capitals, a context in brackets',
    format: 'text',
    text: [
      '2026-11-24T10:00:00.123+0100 I INTAKE  [listener] connection accepted from 10.0.0.7:5555 #7',
      '2026-11-24T10:00:01.123+0100 E SHELF  [conn7] no space',
    ].join('\n'),
    records: [
      {
        at: '2026-11-24T09:00:00.123000Z',
        level: 'info',
        logger: 'INTAKE',
        message: 'connection accepted from 10.0.0.7:5555 #7',
        fields: { thread: 'listener' },
      },
      { at: '2026-11-24T09:00:01.123000Z', level: 'error', logger: 'SHELF', message: 'no space', fields: { thread: 'conn7' } },
    ],
  },
  {
    name: 'cells in angle brackets',
    format: 'text',
    text: [
      '####<Nov 24, 2026 10:00:00,123 AM CET> <Error> <Desk> <app-1> <srv-1> <exec-1> <<anonymous>> <> <4bf92f35> <1795514400123> <[severity-value: 8] > <LAB-000001> <order failed> ',
      '####<Nov 24, 2026 10:00:01,123 AM CET> <Info> <Desk> <app-1> <srv-1> <exec-1> <<anonymous>> <> <4bf92f35> <1795514401123> <[severity-value: 64] > <LAB-000002> <order taken> ',
    ].join('\n'),
    records: [
      {
        at: '2026-11-24T09:00:00.123000Z',
        level: 'error',
        logger: 'Desk',
        message: 'order failed',
        fields: { thread: 'exec-1', context: 'app-1 srv-1 <anonymous> 4bf92f35 1795514400123 [severity-value: 8] LAB-000001' },
      },
      {
        at: '2026-11-24T09:00:01.123000Z',
        level: 'info',
        logger: 'Desk',
        message: 'order taken',
        fields: { thread: 'exec-1', context: 'app-1 srv-1 <anonymous> 4bf92f35 1795514401123 [severity-value: 64] LAB-000002' },
      },
    ],
  },
];
