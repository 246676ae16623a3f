import { describe, expect, test } from '@jest/globals';
import { tracesIn } from '@fadenweg/core/structure';
import { placeOf, shownAsOwn, traceRows, type TraceRow } from './trace-rows.ts';

const TEXT = [
  'example.desk.Failed: order LX-1',
  '\tat org.web.Filter.go(Filter.java:1)',
  '\tat org.web.Chain.go(Chain.java:3)',
  '\tat example.desk.Step.run(Step.java:2)',
  '\tat java.base/java.lang.Thread.run(Thread.java:840)',
  'Caused by: java.sql.SQLException: lock timeout',
  '\tat org.driver.Call.run(Call.java:9)',
  '\t... 3 more',
].join('\n');
const { trace } = tracesIn(TEXT, ['example.desk'])[0]!;
const told = (row: TraceRow): string => {
  if (row.kind === 'frame') return `${row.origin ? '* ' : ''}${row.frame.code} ${placeOf(row.frame)}${row.own ? '' : ' (other)'}`;
  if (row.kind === 'folded') return `+ ${row.count} of ${row.of}`;
  if (row.kind === 'omitted') return `… ${row.count}`;
  return row.kind === 'stranger' ? row.text : `${row.words === '' ? '' : `${row.words} `}${row.unit}${row.text}`;
};

describe('the rows of a trace', () => {
  test('show own calls and the origin, the others folded', () => {
    expect(traceRows(trace, ['example.desk'], new Set()).map(told)).toEqual([
      'example.desk.Failed: order LX-1',
      '+ 2 of org.web',
      '* Step.run Step.java:2',
      '+ 1 of java.lang',
      'caused by java.sql.SQLException: lock timeout',
      '+ 1 of org.driver',
      '… 3',
    ]);
  });
  test('unfold one by one, or all', () => {
    const rows = traceRows(trace, ['example.desk'], new Set());
    const [folded] = rows.filter((row) => row.kind === 'folded');
    expect(traceRows(trace, ['example.desk'], new Set([folded!.key])).map(told).slice(1, 3)).toEqual(['Filter.go Filter.java:1 (other)', 'Chain.go Chain.java:3 (other)']); // prettier-ignore
    const all = traceRows(trace, ['example.desk'], new Set(['all']));
    expect(all.filter((row) => row.kind === 'frame')).toHaveLength(5);
    expect(new Set(all.map((row) => row.key)).size).toBe(all.length);
  });
});

describe('what is shown as its own', () => {
  test('is what is declared beside what is known by names', () => {
    expect(shownAsOwn([trace], ['org.driver'], ['example.desk'])).toEqual(['org.driver', 'example.desk']);
    expect(shownAsOwn([trace], [], [])).toEqual([]);
  });
  test('is what folders tell where nothing else does: what is declared hides none of it', () => {
    const [python] = tracesIn('Traceback (most recent call last):\n  File "/srv/mill/run.py", line 3, in main\n    go()\n  File "/usr/lib/python3/site-packages/kit/a.py", line 9, in go\n    raise Bad()\nkit.Bad: no'); // prettier-ignore
    expect(shownAsOwn([python!.trace], ['/usr/lib/python3/site-packages/kit'], [])).toEqual(['/usr/lib/python3/site-packages/kit', '/srv/mill']);
  });
});
