import { describe, expect, test } from '@jest/globals';
import { tookOfFields, tookOfText } from './took.ts';

describe('durations that a record states about itself', () => {
  test.each([
    ['took 812 ms', 812_000],
    ['duration: 2.913 ms  execute <unnamed>', 2913],
    ['still waiting for ShareLock on transaction 88213 after 1000.872 ms', 1_000_872],
    ['computed in 388 ms', 388_000],
    ['finished in 14.2 s', 14_200_000],
    ['elapsed=5 min', 300_000_000],
    ['done in 1,5 s', 1_500_000],
  ])('%s', (text, micros) => expect(tookOfText(text)).toBe(micros));

  test.each(['in 3 steps', 'after lunch', 'took off', '812 ms', 'within reason', ''])('none in “%s”', (text) => expect(tookOfText(text)).toBeNaN());

  test.each([
    [{ took: 8.5 }, 8500],
    [{ rt: 0.039 }, 39_000],
    [{ duration_us: 77 }, 77],
    [{ 'http.elapsedMs': 12 }, 12_000],
    [{ latency: '12ms' }, 12_000],
    [{ took: '3 s' }, 3_000_000],
    [{ duration: '250' }, 250_000],
    [{ dur: 0.12 }, 120],
    [{ duration_min: 3 }, 3000],
    [{ dur_s: 0.12 }, 120_000],
    [{ totalTimeMs: 12 }, 12_000],
    [{ 'response-time': 12 }, 12_000],
    [{ durationMillis: 12 }, 12_000],
    [{ elapsed_seconds: 1.5 }, 1_500_000],
    [{ execTimeUs: 1500 }, 1500],
    [{ upstream_response_time: 0.5 }, 500_000],
    [{ query_time: 3.2 }, 3_200_000],
  ])('field %j', (fields, micros) => expect(tookOfFields(fields)).toBe(micros));

  test.each([
    { took: 'long' },
    { taken: 5 },
    { time: 5 },
    { mstart: 5 },
    { uptime: 5 },
    { timeout_ms: 5 },
    { min: 5 },
    { request: 5 },
    {},
    { duration: true },
  ])('none in %j', (fields) => expect(tookOfFields(fields as never)).toBeNaN());
});
