import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { measuresOf, tellingParts, withMeasures } from './measures.ts';

describe('numbers that fields state', () => {
  test.each([
    [{ rows: 118, rejected: '4' }, 'rows=118 rejected=4'],
    [{ stations: 207, took: 2990 }, 'stations=207'],
    [{ bytesWritten: 512, 'job.itemCount': 9 }, 'bytesWritten=512 job.itemCount=9'],
    [{ pid: 640, thread: 7, port: 5432, orderId: 12, created_at: 1_700_000_000, elapsedMs: 12, statusCode: 200, delivery: 2 }, ''],
    [{ share: 0.5, rest: -1, name: '12a' }, ''],
    [{}, ''],
  ])('%j: %s', (fields, wanted) => expect(measuresOf(fields)).toBe(wanted));

  test('are at most six, and kept beside the traits as one text', () => {
    fc.assert(
      fc.property(fc.dictionary(fc.stringMatching(/^[a-z]{1,12}$/), fc.nat()), fc.constantFrom('', 'status=ok', 'a=1 b=2'), (fields, traits) => {
        const measures = measuresOf(fields);
        expect(measures === '' ? 0 : measures.split(' ').length).toBeLessThanOrEqual(6);
        expect(tellingParts(withMeasures(traits, measures))).toEqual({ traits, measures });
      }),
    );
  });
});
