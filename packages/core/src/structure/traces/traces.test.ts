import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { ownByName, tracesIn } from './traces.ts';
import type { Trace } from './types.ts';

/** A trace in short: each exception with its frames, the origin marked. */
const told = ({ thrown, origin }: Trace): string[] =>
  thrown.flatMap(({ relation, type, message, frames, omitted }, i) => [
    `${relation} ${type}: ${message}`,
    ...frames.map(({ code, line, standing }, k) => `${origin?.thrown === i && origin.frame === k ? '* ' : '  '}${code}:${line} ${standing}`),
    ...(omitted > 0 ? [`  and ${omitted}`] : []),
  ]);
const only = (text: string, own: string[] = []) => {
  const found = tracesIn(text, own);
  expect(found).toHaveLength(1);
  return found[0]!;
};

const JAVA = `step reserve of LX-204817 failed
example.brillmoor.orderdesk.OrderFailedException: order LX-204817 could not be reserved
\tat example.brillmoor.orderdesk.steps.ReserveStep.run(ReserveStep.java:88)
\tat example.brillmoor.orderdesk.flow.StepRunner.lambda$run$0(StepRunner.java:54)
\tat java.base/java.lang.Thread.run(Thread.java:840)
Caused by: example.brillmoor.blankstore.client.ReserveException: canceling statement (SQLSTATE 55P03)
\tat example.brillmoor.blankstore.client.BlankStoreClient.reserve(BlankStoreClient.java:131)
\tat example.brillmoor.orderdesk.steps.ReserveStep.run(ReserveStep.java:81)
\t... 5 more`;
const DOTNET = `System.InvalidOperationException: no bed is free
 ---> Hut.Store.StoreException: version 4 expected, 5 found
   at Hut.Store.Beds.Write(Int32 night) in C:\\src\\Beds.cs:line 41
   at Hut.Store.Beds.Hold(String id)
   --- End of inner exception stack trace ---
   at Hut.Reserve.Door.Take(Request one) in C:\\src\\Door.cs:line 12
   at System.Threading.ThreadPool.Run()`;
const JS = `TypeError: Cannot read properties of undefined (reading 'sph')
    at lensOf (/srv/portal/src/lens.js:14:22)
    at async Order.price (file:///srv/portal/src/order.js:88:5)
    at /srv/portal/node_modules/router/layer.js:95:5
    at node:internal/process/task_queues:95:5 {
  [cause]: Error: lens is missing
      at read (/srv/portal/src/read.js:3:9)
}`;
const PYTHON = `Traceback (most recent call last):
  File "/srv/batch/prices.py", line 31, in read
    row = rows[4]
IndexError: list index out of range

The above exception was the direct cause of the following exception:

Traceback (most recent call last):
  File "/usr/lib/python3.11/threading.py", line 1038, in _bootstrap_inner
    self.run()
  File "/srv/batch/job.py", line 12, in run
    read(path)
batch.errors.JobFailed: prices.csv cannot be read`;
const GO = `panic: runtime error: index out of range [5] with length 3

goroutine 18 [running]:
main.(*Feed).read(0xc0000b2000, 0x5)
\t/srv/feed/feed.go:42 +0x1d
example.com/feed/stations.All(...)
\t/srv/feed/stations/all.go:7
created by main.main in goroutine 1
\t/srv/feed/main.go:20 +0x9c
exit status 2`;
const PHP = `PHP Fatal error:  Uncaught RuntimeException: no label in /srv/labels/Label.php:17
Stack trace:
#0 /srv/labels/vendor/http/Client.php(31): Label->print()
#1 [internal function]: Client->call()
#2 {main}

Next PrintFailed: parcel PX1 in /srv/labels/Print.php:9
Stack trace:
#0 {main}
  thrown in /srv/labels/Print.php on line 9`;
const RUBY = `/srv/desk/app/claim.rb:8:in 'total': undefined method '+' for nil (NoMethodError)
\tfrom /srv/desk/app/claim.rb:3:in 'block in sum'
\tfrom /usr/lib/ruby/3.1.0/net/http.rb:9:in 'each'`;

describe('stack traces', () => {
  test('of the Java machine, with the cause unrolled and its innermost call as origin', () => {
    const { from, to, trace } = only(JAVA);
    expect(JAVA.slice(from, to)).toBe(JAVA.slice(JAVA.indexOf('\n') + 1));
    expect(told(trace)).toEqual([
      'thrown example.brillmoor.orderdesk.OrderFailedException: order LX-204817 could not be reserved',
      '  ReserveStep.run:88 program',
      '  StepRunner.lambda$run$0:54 program',
      '  Thread.run:840 platform',
      'caused by example.brillmoor.blankstore.client.ReserveException: canceling statement (SQLSTATE 55P03)',
      '* BlankStoreClient.reserve:131 program',
      '  ReserveStep.run:81 program',
      '  and 5',
    ]);
    expect(told(only(JAVA, ['example.brillmoor.orderdesk']).trace)).toContain('* ReserveStep.run:81 program');
  });
  test('of the Java machine behind words of the program, which stay what they are', () => {
    const head = 'stock.Service could not store (shelf 4): ';
    const text = `${head}java.lang.IllegalStateException: no room: 12 left\n\tat example.stock.Shelf.add(Shelf.java:88)\nCaused by: java.io.IOException: disk full\n\tat example.stock.Disk.flush(Disk.java:12)\n`;
    const { from, to, trace } = only(text);
    expect([from, to, trace.language]).toEqual([head.length, text.length, 'java']);
    expect(told(trace)).toEqual([
      'thrown java.lang.IllegalStateException: no room: 12 left',
      '  Shelf.add:88 program',
      'caused by java.io.IOException: disk full',
      '* Disk.flush:12 program',
    ]);
    // a name of a file is no type, and words without calls behind them are none either
    expect(tracesIn(`${head}example.stock.txt: none\n\tat example.stock.Shelf.add(Shelf.java:88)`)[0]!.from).not.toBe(head.length);
    expect(tracesIn(`${head}java.lang.IllegalStateException: no room\nand then\n\tat example.stock.Shelf.add(Shelf.java:88)`)[0]!.from).not.toBe(
      head.length,
    );
  });
  test('of the common language runtime, whose causes stand inside', () => {
    expect(told(only(DOTNET).trace)).toEqual([
      'thrown System.InvalidOperationException: no bed is free',
      '  Door.Take:12 program',
      '  ThreadPool.Run:null platform',
      'caused by Hut.Store.StoreException: version 4 expected, 5 found',
      '* Beds.Write:41 program',
      '  Beds.Hold:null program',
    ]);
  });
  test('of JavaScript, with what was added and what came with the runtime told apart', () => {
    expect(told(only(JS).trace)).toEqual([
      "thrown TypeError: Cannot read properties of undefined (reading 'sph')",
      '  lensOf:14 program',
      '  Order.price:88 program',
      '  (anonymous):95 library',
      '  (anonymous):95 platform',
      'caused by Error: lens is missing',
      '* read:3 program',
    ]);
    expect(told(only('Error: x\nrun@https://desk.example/app.js:1:20\n@https://desk.example/app.js:2:1').trace)).toHaveLength(3);
  });
  test('of Python, turned round, causes behind what they caused', () => {
    expect(told(only(PYTHON).trace)).toEqual([
      'thrown batch.errors.JobFailed: prices.csv cannot be read',
      '  run:12 program',
      '  _bootstrap_inner:1038 platform',
      'caused by IndexError: list index out of range',
      '* read:31 program',
    ]);
    expect(only(PYTHON.replace('The above exception was the direct cause of the following exception:', 'During handling of the above exception, another exception occurred:')).trace.thrown[1]!.relation).toBe('while handling'); // prettier-ignore
  });
  test('of Go, PHP and Ruby', () => {
    expect(told(only(GO).trace)).toEqual([
      'thrown panic: runtime error: index out of range [5] with length 3',
      '* main.(*Feed).read:42 program',
      '  stations.All:7 program',
      '  main.main:20 program',
    ]);
    expect(told(only(PHP).trace)).toEqual([
      'thrown PrintFailed: parcel PX1',
      '  :9 program',
      '  {main}:null program',
      'caused by RuntimeException: no label',
      '* :17 program',
      '  Label->print():31 library',
      '  Client->call():null platform',
      '  {main}:null program',
    ]);
    expect(told(only(RUBY).trace)).toEqual(["thrown NoMethodError: undefined method '+' for nil", '* total:8 program', '  block in sum:3 program', '  each:9 platform']); // prettier-ignore
  });
  test('of anything else that lists calls', () => {
    const { trace } = only('Mill stopped\n  at grind (mill.abc:7)\n  at feed (mill.abc:3)\n  at main (start.abc:1)');
    expect(trace).toMatchObject({ language: 'other', origin: { thrown: 0, frame: 0 } });
    expect(trace.thrown[0]!.frames[0]).toMatchObject({ file: 'mill.abc', line: 7 });
    expect(only('LensError: off\n  in Ring.shift [grid.xx:7]\n  in Ring.turn [grid.xx:9]\n  in Main').trace).toMatchObject({ language: 'other' });
  });
  test('cut off, without a head, or with lines of another thread between', () => {
    expect(only(JAVA.slice(0, JAVA.indexOf('(StepRunner'))).trace.thrown[0]!.frames).toHaveLength(1);
    expect(only('\tat a.b.C.d(C.java:1)\n\tat a.b.C.e(C.java:2)').trace.thrown[0]).toMatchObject({ type: '', frames: [{ line: 1 }, { line: 2 }] });
    const mixed = JAVA.replace('\tat java.base', '2026-11-24 09:12:01,022 INFO [exec-4] other work\n\tat java.base');
    const { thrown } = only(mixed).trace;
    expect(thrown[0]!.frames).toHaveLength(3);
    expect(thrown[0]!.strangers).toEqual(['2026-11-24 09:12:01,022 INFO [exec-4] other work']);
  });
  test('is nothing that only looks a little like one', () => {
    for (const text of ['one\ntwo\nthree', 'meet me at noon\n at home\nor so', '{"a":1}\n{"b":2}', 'a: b\nc: d', ''])
      expect(tracesIn(text)).toEqual([]);
  });
  test('whatever is done to them, stand in order inside of the text', () => {
    const all = [JAVA, DOTNET, JS, PYTHON, GO, PHP, RUBY];
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.constantFrom(...all), fc.nat(400), fc.nat(60), fc.string()), { minLength: 1, maxLength: 4 }), (pieces) => {
        const text = pieces.map(([trace, at, gone, put]) => trace.slice(0, at) + put + trace.slice(at + gone)).join('\n');
        let last = 0;
        for (const { from, to, trace } of tracesIn(text)) {
          expect(from).toBeGreaterThanOrEqual(last);
          expect(to).toBeGreaterThan(from);
          expect(to).toBeLessThanOrEqual(text.length);
          if (trace.origin) expect(trace.thrown[trace.origin.thrown]!.frames[trace.origin.frame]).toBeDefined();
          last = to;
        }
      }),
    );
  });
});

test('own packages by the names of component, logger and what is thrown', () => {
  const text =
    'example.desk.Failed: x\n\tat org.web.Filter.go(Filter.java:1)\n\tat example.desk.Step.run(Step.java:2)\n\tat org.web.Chain.go(Chain.java:3)';
  const traces = tracesIn(text).map(({ trace }) => trace);
  expect(ownByName(traces, 'elsewhere', null)).toEqual(['example.desk']);
  const unnamed = text.replace('example.desk.Failed', 'java.lang.IllegalStateException');
  const own = (component: string, logger: string | null): string[] => ownByName(tracesIn(unnamed).map(({ trace }) => trace), component, logger); // prettier-ignore
  expect(own('mill', 'e.d.Step')).toEqual(['example.desk']);
  expect(own('mill', null)).toEqual([]);
  expect(ownByName(tracesIn(JAVA).map(({ trace }) => trace), 'order-desk', null)).toEqual([]); // prettier-ignore
});
