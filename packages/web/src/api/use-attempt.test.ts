import { describe, expect, test } from '@jest/globals';
import { ApiError } from './client.ts';
import { useAttempt } from './use-attempt.ts';

describe('what may be refused', () => {
  test('is under way until it is done, and tells so', async () => {
    let ended = 0;
    const { attempt, busy, refused } = useAttempt(() => ended++);
    let finish = (): void => {};
    const doing = attempt(() => new Promise<void>((resolve) => (finish = resolve)));
    expect([busy.value, ended]).toEqual([true, 0]);
    finish();
    expect(await doing).toBe(true);
    expect([busy.value, refused.value, ended]).toEqual([false, '', 1]);
  });
  test('tells why it was, until the next one', async () => {
    const { attempt, busy, refused } = useAttempt();
    const refusal = new ApiError({ type: '', title: 'Not so', status: 400, detail: 'It is too long.', action: 'Shorten it.' });
    expect(await attempt(() => Promise.reject(refusal))).toBe(false);
    expect([busy.value, refused.value]).toEqual([false, 'Not so: It is too long. Shorten it.']);
    expect(await attempt(() => Promise.reject(new Error('the network is away')))).toBe(false);
    expect(refused.value).toBe('the network is away');
    expect(await attempt(() => Promise.resolve())).toBe(true);
    expect(refused.value).toBe('');
  });
});
test('the last one is tried again, and shown as what it is', async () => {
  const { attempt, again, problem } = useAttempt();
  let tries = 0;
  const act = (): Promise<void> => (++tries < 3 ? Promise.reject(new ApiError({ type: '', title: 'Away', status: 503, detail: 'Not now.' })) : Promise.resolve()); // prettier-ignore
  expect(await attempt(act)).toBe(false);
  expect(problem.value).toMatchObject({ title: 'Away', status: 503 });
  expect(await again()).toBe(false);
  expect(await again()).toBe(true);
  expect([tries, problem.value]).toEqual([3, null]);
});
