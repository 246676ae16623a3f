import { expect, test } from '@jest/globals';
import { openMetrics } from './metrics.ts';

test('figures are told in the open format, with its endings and escapes', () => {
  const text = openMetrics([
    {
      name: 'fadenweg_work',
      type: 'gauge',
      help: 'pieces of work',
      samples: [
        { labels: { state: 'running' }, value: 2 },
        { labels: { state: 'a"b\\c\nd' }, value: 0 },
      ],
    },
    { name: 'fadenweg_weaving_seconds', type: 'counter', help: 'time spent', samples: [{ value: 1.5 }] },
  ]);
  expect(text).toBe(
    [
      '# TYPE fadenweg_work gauge',
      '# HELP fadenweg_work pieces of work',
      'fadenweg_work{state="running"} 2',
      'fadenweg_work{state="a\\"b\\\\c\\nd"} 0',
      '# TYPE fadenweg_weaving_seconds counter',
      '# HELP fadenweg_weaving_seconds time spent',
      'fadenweg_weaving_seconds_total 1.5',
      '# EOF',
      '',
    ].join('\n'),
  );
});
