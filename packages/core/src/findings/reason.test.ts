import { describe, expect, test } from '@jest/globals';
import { reasonOf } from './reason.ts';

describe('the reason that a message gives behind its first line', () => {
  test('the innermost cause of a trace, and the call of the program in which it came up', () => {
    const message = `surface of LX-108774 failed
org.lens.calc.SurfaceException: surface failed
\tat org.lens.calc.Surface.trace(Surface.java:91)
\tat java.base/java.lang.Thread.run(Thread.java:840)
Caused by: org.lens.calc.PrismOffGridException: prism 2.00 leaves the grid at ring 37
\tat java.base/java.util.ArrayList.get(ArrayList.java:427)
\tat org.lens.calc.Grid.ring(Grid.java:214)
\t... 12 more`;
    expect(reasonOf(message, 'lens-calc')).toEqual({
      text: 'PrismOffGridException: prism 2.00 leaves the grid at ring 37',
      call: 'Grid.ring (Grid.java:214)',
    });
  });
  test('what the first line says already is not said again', () => {
    const message = `ValueError: no tray 7
Traceback (most recent call last):
  File "/srv/trays/take.py", line 12, in take
    raise ValueError("no tray 7")
ValueError: no tray 7`;
    expect(reasonOf(message, 'trays')).toEqual({ text: '', call: 'take (take.py:12)' });
  });
  test('a call without a name is told by its place', () => {
    const message = `POST /loans failed\nError: no tray 7\n    at <anonymous> (/srv/desk/take.ts:12:9)\n    at next (/srv/desk/node_modules/x/y.js:1:1)`;
    expect(reasonOf(message, 'desk')).toEqual({ text: 'Error: no tray 7', call: 'take.ts:12' });
  });
  test('a SOAP fault', () => {
    const body =
      '<s:Envelope xmlns:s="x"><s:Body><s:Fault><faultcode>s:Client</faultcode><faultstring>no contract 4711</faultstring></s:Fault></s:Body></s:Envelope>';
    expect(reasonOf(`answer 500 ${body}`, 'door')).toEqual({ text: 'no contract 4711', call: null });
    const later =
      '<e:Envelope xmlns:e="y"><e:Body><e:Fault><e:Reason><e:Text xml:lang="en">tray is locked</e:Text></e:Reason></e:Fault></e:Body></e:Envelope>';
    expect(reasonOf(later, 'door')).toEqual({ text: 'tray is locked', call: null });
  });
  test('a nested error of a body', () => {
    expect(reasonOf('call failed: {"error":{"code":"E17","message":"store said no","cause":{"message":"shelf 9 is full"}}}', 'desk')).toEqual({
      text: 'shelf 9 is full',
      call: null,
    });
    expect(reasonOf('{"type":"about:blank","title":"Unprocessable","status":422,"detail":"axis 190 is beyond 180","errors":[]}', 'desk')).toEqual({
      text: 'axis 190 is beyond 180',
      call: null,
    });
    expect(reasonOf('answered {"errors":[{"detail":"axis 190 is beyond 180"}]}', 'desk')).toEqual({ text: 'axis 190 is beyond 180', call: null });
  });
  test("a database's detail", () => {
    const message =
      'ERROR:  duplicate key value violates unique constraint "blank_pkey"\nDETAIL:  Key (id)=(77) already exists.\nSTATEMENT:  insert into blank values (77)';
    expect(reasonOf(message, 'db')).toEqual({ text: 'Key (id)=(77) already exists.', call: null });
  });
  test('a message that gives none has none', () => {
    for (const message of [
      'blank 77 is broken',
      'taken {"order":"LX-1","tray":{"message":"on its way"}}',
      '<order><message>fine</message></order>',
      'two\nlines',
    ])
      expect(reasonOf(message, 'desk')).toBeNull();
  });
});
