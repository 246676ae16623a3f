import type { ReadingSample } from './samples.ts';

/** Lines of programs with those of their container around them. */
export const CONTAINER_SAMPLES: ReadingSample[] = [
  {
    name: 'a line of text inside an object of JSON, one of each stream',
    format: 'container-lines',
    text: [
      '{"log":"2026-11-24 10:00:00,123 INFO order LX-204817 taken\\n","stream":"stdout","time":"2026-11-24T09:00:00.123456789Z"}',
      '{"log":"order LX-204818 failed\\n","stream":"stderr","time":"2026-11-24T09:00:01.123456789Z"}',
    ].join('\n'),
    records: [
      { at: '2026-11-24T09:00:00.123000Z', level: 'info', message: 'order LX-204817 taken', fields: { stream: 'stdout' } },
      { at: '2026-11-24T09:00:01.123456Z', level: 'none', message: 'order LX-204818 failed', fields: { stream: 'stderr' } },
    ],
  },
  {
    name: 'stream and flag before the line, which is text or JSON',
    format: 'container-lines',
    text: [
      '2026-11-24T09:00:00.123456789Z stdout F order LX-204817 taken',
      '2026-11-24T09:00:01.123456789Z stderr F {"level":"error","msg":"order LX-204818 failed"}',
    ].join('\n'),
    records: [
      { at: '2026-11-24T09:00:00.123456Z', level: 'none', message: 'order LX-204817 taken', fields: { stream: 'stdout' } },
      { at: '2026-11-24T09:00:01.123456Z', level: 'error', message: 'order LX-204818 failed', fields: { stream: 'stderr' } },
    ],
  },
];
