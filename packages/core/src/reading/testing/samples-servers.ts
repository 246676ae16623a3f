import type { ReadingSample } from './samples.ts';

/** What servers and systems write in layouts of their own. */
export const SERVER_SAMPLES: ReadingSample[] = [
  {
    name: 'PostgreSQL to stderr: details and statements go with the entry before',
    format: 'postgresql-stderr',
    zone: 'UTC',
    text: '2026-11-25 01:02:03.123 UTC [4711] LOG:  checkpoint starting: time\n2026-11-25 01:02:04.000 UTC [4712] lab@labdb ERROR:  relation "x" does not exist at character 15\n2026-11-25 01:02:04.000 UTC [4712] lab@labdb STATEMENT:  select * from x\n\twhere a = 1\n2026-11-25 01:02:05.000 UTC [4712] lab@labdb LOG:  duration: 2.913 ms  execute <unnamed>: select 1\n2026-11-25 01:02:05.000 UTC [4712] lab@labdb DETAIL:  parameters: $1 = \'LX-204817\'',
    records: [
      { at: '2026-11-25T01:02:03.123000Z', level: 'info', message: 'checkpoint starting: time', fields: { pid: 4711 } },
      {
        at: '2026-11-25T01:02:04.000000Z',
        level: 'error',
        message: 'relation "x" does not exist at character 15',
        fields: { pid: 4712, user: 'lab', database: 'labdb', query: 'select * from x\nwhere a = 1' },
      },
      {
        at: '2026-11-25T01:02:05.000000Z',
        level: 'info',
        message: "duration: 2.913 ms  execute <unnamed>: select 1\nparameters: $1 = 'LX-204817'",
        took: 2913,
        fields: { detail: "parameters: $1 = 'LX-204817'" },
      },
    ],
  },
  {
    name: 'PostgreSQL to stderr, in German, with another prefix',
    format: 'postgresql-stderr',
    zone: 'UTC',
    text: '673f1a2b.1588 [2-1] 2026-11-25 02:02:04 CET user=lab,db=labdb,app=blank-store,client=10.7.0.13 FEHLER:  Relation »x« existiert nicht bei Zeichen 15\n673f1a2b.1588 [3-1] 2026-11-25 02:02:04 CET user=lab,db=labdb,app=blank-store,client=10.7.0.13 ANWEISUNG:  select * from x',
    records: [
      {
        at: '2026-11-25T01:02:04.000000Z',
        level: 'error',
        message: 'Relation »x« existiert nicht bei Zeichen 15',
        fields: { session: '673f1a2b.1588', user: 'lab', database: 'labdb', application: 'blank-store', query: 'select * from x' },
      },
    ],
  },
  {
    name: 'syslog, RFC 5424, with structured data',
    format: 'syslog',
    zone: 'UTC',
    text: '<165>1 2026-11-24T10:41:58.912345+01:00 app-2 order-desk 4711 ID47 [exampleSDID@32473 iut="3" eventSource="lens \\"A\\""] order LX-204817 taken\n<11>1 2026-11-24T09:41:59Z app-2 order-desk - - - gave up',
    records: [
      {
        at: '2026-11-24T09:41:58.912345Z',
        level: 'info',
        message: 'order LX-204817 taken',
        logger: 'order-desk',
        component: 'order-desk',
        host: 'app-2',
        fields: { pid: 4711, msgid: 'ID47', iut: '3', eventSource: 'lens "A"', facility: 20 },
      },
      { at: '2026-11-24T09:41:59.000000Z', level: 'error', message: 'gave up', host: 'app-2' },
    ],
  },
  {
    name: 'syslog, RFC 3164, without a year',
    format: 'syslog',
    text: 'Nov 24 10:41:58 app-2 sshd[811]: Accepted publickey for lab\nNov 24 10:41:59 app-2 kernel: Out of memory: Killed process 4711 (java)\nNov  4 10:42:00 app-2 systemd[1]: Started lens works.',
    records: [
      {
        at: '2026-11-24T09:41:58.000000Z',
        level: 'none',
        message: 'Accepted publickey for lab',
        component: 'sshd',
        host: 'app-2',
        fields: { pid: 811 },
      },
      { at: '2026-11-24T09:41:59.000000Z', level: 'none', message: 'Out of memory: Killed process 4711 (java)', component: 'kernel' },
      { at: '2026-11-04T09:42:00.000000Z', level: 'none', message: 'Started lens works.' },
    ],
  },
  {
    name: 'syslog with ISO times',
    format: 'syslog',
    zone: 'UTC',
    text: '2026-11-24T10:41:58.912345+01:00 app-2 lens-daemon[12]: warning: belt is slow\n2026-11-24T10:41:59.912345+01:00 app-2 CRON[13]: (root) CMD (true)',
    records: [
      { at: '2026-11-24T09:41:58.912345Z', level: 'warning', message: 'warning: belt is slow', component: 'lens-daemon' },
      { at: '2026-11-24T09:41:59.912345Z', level: 'none', message: '(root) CMD (true)', component: 'CRON' },
    ],
  },
  {
    name: 'W3C extended log, columns changed on the way',
    format: 'w3c-extended',
    text: '#Version: 1.0\n#Fields: date time s-computername cs-method cs-uri-stem cs-uri-query sc-status time-taken cs(User-Agent)\n2026-11-24 09:41:58 GATE-1 GET /orders id=LX-204817 200 31 Mozilla/5.0+(X11)\n#Fields: date time cs-method cs-uri-stem sc-status\n2026-11-24 09:41:59 POST /orders 503',
    records: [
      {
        at: '2026-11-24T09:41:58.000000Z',
        level: 'info',
        message: 'GET /orders?id=LX-204817 200',
        took: 31_000,
        host: 'GATE-1',
        fields: { status: 200, agent: 'Mozilla/5.0 (X11)', path: '/orders' },
      },
      { at: '2026-11-24T09:41:59.000000Z', level: 'error', message: 'POST /orders 503', fields: { status: 503 } },
    ],
  },
  {
    name: 'HTTP messages with bodies, a fault behind a good status',
    format: 'http-wire',
    text: '2026-11-24 10:41:58,912 INFO frame-gate sent\nPOST /frames HTTP/1.1\nHost: frames.example\nContent-Type: text/xml\n\n<Order no="LX-204817"/>\n2026-11-24 10:41:59,001 INFO frame-gate received\nHTTP/1.1 200 OK\nContent-Type: text/xml\n\n<Answer><errorCode>F-417</errorCode><errorText>frame is discontinued</errorText></Answer>',
    records: [
      {
        at: '2026-11-24T09:41:58.912000Z',
        level: 'info',
        message: 'POST /frames HTTP/1.1\nHost: frames.example\nContent-Type: text/xml\n\n<Order no="LX-204817"/>',
        fields: { method: 'POST', path: '/frames', direction: 'out' },
      },
      {
        at: '2026-11-24T09:41:59.001000Z',
        level: 'error',
        message:
          'HTTP/1.1 200 OK\nContent-Type: text/xml\n\n<Answer><errorCode>F-417</errorCode><errorText>frame is discontinued</errorText></Answer>',
        fields: { status: 200, direction: 'in', fault_code: 'F-417', fault: 'frame is discontinued' },
      },
    ],
  },
  {
    name: 'SIP messages behind another framing',
    format: 'sip-trace',
    zone: 'UTC',
    text: 'U 2026/11/24 08:30:07.115833 198.51.100.108:5060 -> 192.0.2.1:5060\nINVITE sip:100@voice.example SIP/2.0\nCall-ID: abc@tel-1\nCSeq: 1 INVITE\n\nU 2026/11/24 08:30:07.215833 192.0.2.1:5060 -> 198.51.100.108:5060\nSIP/2.0 486 Busy Here\nCall-ID: abc@tel-1\nCSeq: 1 INVITE\n',
    records: [
      {
        at: '2026-11-24T08:30:07.115833Z',
        level: 'info',
        message: 'INVITE sip:100@voice.example SIP/2.0\nCall-ID: abc@tel-1\nCSeq: 1 INVITE',
        fields: { 'call-id': 'abc@tel-1', method: 'INVITE' },
      },
      {
        at: '2026-11-24T08:30:07.215833Z',
        level: 'warning',
        message: 'SIP/2.0 486 Busy Here\nCall-ID: abc@tel-1\nCSeq: 1 INVITE',
        fields: { status: 486 },
      },
    ],
  },
  {
    name: 'SIP messages set in by tabs, with the size of each in brackets',
    format: 'sip-trace',
    zone: 'UTC',
    text: '2026-11-24 08:30:07.115 recv [96] bytes from 198.51.100.108:5060\n\tINVITE sip:100@voice.example SIP/2.0\n\tCall-ID: abc@tel-1\n\tCSeq: 1 INVITE\n\n2026-11-24 08:30:07.215 sent [64] bytes to 198.51.100.108:5060\n\tSIP/2.0 486 Busy Here\n\tCall-ID: abc@tel-1\n\tCSeq: 1 INVITE\n',
    records: [
      {
        at: '2026-11-24T08:30:07.115000Z',
        level: 'info',
        message: 'INVITE sip:100@voice.example SIP/2.0\nCall-ID: abc@tel-1\nCSeq: 1 INVITE',
        fields: { 'call-id': 'abc@tel-1', method: 'INVITE', peer: '198.51.100.108:5060' },
      },
      {
        at: '2026-11-24T08:30:07.215000Z',
        level: 'warning',
        message: 'SIP/2.0 486 Busy Here\nCall-ID: abc@tel-1\nCSeq: 1 INVITE',
        fields: { status: 486, peer: '198.51.100.108:5060' },
      },
    ],
  },
  {
    name: 'SIP outside of calls: no call of its own, unless inside a dialog',
    format: 'sip-trace',
    zone: 'UTC',
    text: 'U 2026/11/24 08:30:07.115833 192.0.2.1:5060 -> 192.0.2.20:5062\nOPTIONS sip:desk@voice.example SIP/2.0\nTo: <sip:desk@voice.example>\nCall-ID: abc@tel-1\nCSeq: 1 OPTIONS\n\nU 2026/11/24 08:30:07.215833 192.0.2.20:5062 -> 192.0.2.1:5060\nSIP/2.0 200 OK\nTo: <sip:desk@voice.example>;tag=7\nCall-ID: abc@tel-1\nCSeq: 1 OPTIONS\n\nU 2026/11/24 08:30:09.115833 192.0.2.1:5060 -> 192.0.2.20:5062\nNOTIFY sip:desk@voice.example SIP/2.0\nTo: <sip:desk@voice.example>;tag=8\nCall-ID: def@tel-1\nCSeq: 3 NOTIFY\n',
    records: [
      {
        at: '2026-11-24T08:30:07.115833Z',
        level: 'info',
        message: 'OPTIONS sip:desk@voice.example SIP/2.0\nTo: <sip:desk@voice.example>\nCall-ID: abc@tel-1\nCSeq: 1 OPTIONS',
        fields: { dialog: 'abc@tel-1', method: 'OPTIONS' },
      },
      {
        at: '2026-11-24T08:30:07.215833Z',
        level: 'info',
        message: 'SIP/2.0 200 OK\nTo: <sip:desk@voice.example>;tag=7\nCall-ID: abc@tel-1\nCSeq: 1 OPTIONS',
        fields: { dialog: 'abc@tel-1', status: 200 },
      },
      {
        at: '2026-11-24T08:30:09.115833Z',
        level: 'info',
        message: 'NOTIFY sip:desk@voice.example SIP/2.0\nTo: <sip:desk@voice.example>;tag=8\nCall-ID: def@tel-1\nCSeq: 3 NOTIFY',
        fields: { 'call-id': 'def@tel-1', method: 'NOTIFY' },
      },
    ],
  },
];
