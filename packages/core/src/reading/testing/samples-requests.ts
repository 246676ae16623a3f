import type { ReadingSample } from './samples.ts';

/** Lines of servers that are no access log and no syslog. */
export const REQUEST_SAMPLES: ReadingSample[] = [
  {
    name: 'a server’s errors: level in brackets, process and thread with a hash between',
    format: 'text',
    text: [
      '2026/11/24 10:00:00 [error] 1234#1234: *56 connect() failed (111: Connection refused) while connecting to cell, client: 10.0.0.7, server: desk.example, request: "GET /orders/LX-204817 HTTP/1.1", cell: "http://10.0.0.8:8080/orders/LX-204817"',
      '2026/11/24 10:00:01 [warn] 1234#1234: *57 an cell response is buffered to a temporary file',
    ].join('\n'),
    records: [
      {
        at: '2026-11-24T09:00:00.000000Z',
        level: 'error',
        message:
          '*56 connect() failed (111: Connection refused) while connecting to cell, client: 10.0.0.7, server: desk.example, request: "GET /orders/LX-204817 HTTP/1.1", cell: "http://10.0.0.8:8080/orders/LX-204817"',
        fields: { thread: '1234#1234' },
      },
      {
        at: '2026-11-24T09:00:01.000000Z',
        level: 'warning',
        message: '*57 an cell response is buffered to a temporary file',
        fields: { thread: '1234#1234' },
      },
    ],
  },
  {
    name: 'an epoch inside of a word, with a number of its own behind it',
    format: 'text',
    text: [
      'type=SYSCALL msg=audit(1795514400.123:45): arch=c000003e syscall=59 success=yes exit=0 pid=77 comm="sh"',
      'type=CWD msg=audit(1795514400.123:45): cwd="/"',
    ].join('\n'),
    records: [
      {
        at: '2026-11-24T10:00:00.123000Z',
        level: 'none',
        message: 'arch=c000003e syscall=59 success=yes exit=0 pid=77 comm="sh"',
        fields: { type: 'SYSCALL', msg: 'audit', arch: 'c000003e', syscall: 59 },
      },
      { at: '2026-11-24T10:00:00.123000Z', level: 'none', message: 'cwd="/"', fields: { type: 'CWD', msg: 'audit', cwd: '/' } },
    ],
  },
  {
    name: 'time, request and status without who asked',
    format: 'text',
    text: [
      '[2026-11-24T09:00:00.123Z] "GET /orders/LX-204817 HTTP/1.1" 504 UT 0 24 1234 - "-" "client/1" "0d1b2c3d-4e5f-6071-8293-a4b5c6d7e8f9" "desk" "10.0.0.8:8080"',
      '[2026-11-24T09:00:01.123Z] "GET /orders/LX-204818 HTTP/1.1" 200 - 0 24 12 11 "-" "client/1" "1d1b2c3d-4e5f-6071-8293-a4b5c6d7e8f9" "desk" "10.0.0.8:8080"',
    ].join('\n'),
    records: [
      {
        at: '2026-11-24T09:00:00.123000Z',
        level: 'error',
        message: '"GET /orders/LX-204817 HTTP/1.1" 504 UT 0 24 1234 - "-" "client/1" "0d1b2c3d-4e5f-6071-8293-a4b5c6d7e8f9" "desk" "10.0.0.8:8080"',
        fields: { method: 'GET', path: '/orders/LX-204817', protocol: 'HTTP/1.1', status: 504 },
      },
      {
        at: '2026-11-24T09:00:01.123000Z',
        level: 'info',
        message: '"GET /orders/LX-204818 HTTP/1.1" 200 - 0 24 12 11 "-" "client/1" "1d1b2c3d-4e5f-6071-8293-a4b5c6d7e8f9" "desk" "10.0.0.8:8080"',
        fields: { method: 'GET', path: '/orders/LX-204818', protocol: 'HTTP/1.1', status: 200 },
      },
    ],
  },
  {
    name: 'syslog with an object of JSON for its message',
    format: 'syslog',
    text: [
      'Nov 24 10:00:00 app-1 desk[77]: {"level":"error","msg":"no price","order":"LX-204817"}',
      'Nov 24 10:00:01 app-1 desk[77]: {"level":"info","msg":"on"}',
    ].join('\n'),
    records: [
      {
        at: '2026-11-24T09:00:00.000000Z',
        level: 'error',
        logger: 'desk',
        component: 'desk',
        host: 'app-1',
        message: 'no price',
        fields: { host: 'app-1', pid: 77, order: 'LX-204817' },
      },
      {
        at: '2026-11-24T09:00:01.000000Z',
        level: 'info',
        logger: 'desk',
        component: 'desk',
        host: 'app-1',
        message: 'on',
        fields: { host: 'app-1', pid: 77 },
      },
    ],
  },
  {
    name: 'an access log that begins with the server’s own name',
    format: 'access-log',
    text: [
      'desk.example:443 10.0.0.7 - - [24/Nov/2026:10:00:00 +0100] "GET /orders/LX-204817 HTTP/1.1" 200 512 "-" "client/1"',
      'desk.example:443 10.0.0.7 - - [24/Nov/2026:10:00:01 +0100] "GET /orders/LX-204818 HTTP/1.1" 500 512 "-" "client/1"',
    ].join('\n'),
    records: [
      {
        at: '2026-11-24T09:00:00.000000Z',
        level: 'info',
        message: 'GET /orders/LX-204817 HTTP/1.1 200 512',
        fields: { server: 'desk.example:443', client: '10.0.0.7', method: 'GET', path: '/orders/LX-204817' },
      },
      {
        at: '2026-11-24T09:00:01.000000Z',
        level: 'error',
        message: 'GET /orders/LX-204818 HTTP/1.1 500 512',
        fields: { server: 'desk.example:443', client: '10.0.0.7', method: 'GET', path: '/orders/LX-204818' },
      },
    ],
  },
  {
    name: 'an access log with seconds at its end',
    format: 'access-log',
    text: [
      '10.0.0.7 - - [24/Nov/2026:10:00:00.123 +0100] "GET /orders/LX-204817 HTTP/1.1" 200 512 0.123',
      '10.0.0.7 - - [24/Nov/2026:10:00:01.123 +0100] "GET /orders/LX-204818 HTTP/1.1" 500 512 1.5',
    ].join('\n'),
    records: [
      {
        at: '2026-11-24T09:00:00.123000Z',
        level: 'info',
        message: 'GET /orders/LX-204817 HTTP/1.1 200 512 0.123',
        took: 123000,
        fields: { client: '10.0.0.7', method: 'GET', path: '/orders/LX-204817', protocol: 'HTTP/1.1' },
      },
      {
        at: '2026-11-24T09:00:01.123000Z',
        level: 'error',
        message: 'GET /orders/LX-204818 HTTP/1.1 500 512 1.5',
        fields: { client: '10.0.0.7', method: 'GET', path: '/orders/LX-204818', protocol: 'HTTP/1.1' },
      },
    ],
  },
  {
    name: 'an access log with several addresses, some of its lines',
    format: 'access-log',
    text: [
      '10.0.0.7, 10.0.0.8 - - [24/Nov/2026:10:00:00 +0100] "GET /orders/LX-204817 HTTP/1.1" 200 512 "-" "client/1"',
      '10.0.0.7 - - [24/Nov/2026:10:00:01 +0100] "GET /orders/LX-204818 HTTP/1.1" 500 512 "-" "client/1"',
    ].join('\n'),
    records: [
      {
        at: '2026-11-24T09:00:00.000000Z',
        level: 'info',
        message: 'GET /orders/LX-204817 HTTP/1.1 200 512',
        fields: { client: '10.0.0.7, 10.0.0.8', method: 'GET', path: '/orders/LX-204817', protocol: 'HTTP/1.1' },
      },
      {
        at: '2026-11-24T09:00:01.000000Z',
        level: 'error',
        message: 'GET /orders/LX-204818 HTTP/1.1 500 512',
        fields: { client: '10.0.0.7', method: 'GET', path: '/orders/LX-204818', protocol: 'HTTP/1.1' },
      },
    ],
  },
];
