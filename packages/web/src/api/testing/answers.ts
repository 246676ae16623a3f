import { jest } from '@jest/globals';
import { nextTick } from 'vue';

/**
 * Lets each call to the server be answered with the next of these, in order; one with a `status` is a refusal. What an answer leaves away is filled from `usual`.
 *
 * @returns the addresses that were asked, growing
 */
export function answers(usual: object, ...list: object[]): URL[] {
  const calls: URL[] = [];
  globalThis.fetch = jest.fn(async (input: unknown, init?: RequestInit) => {
    calls.push(new URL(String(input), 'http://page.example'));
    await Promise.resolve();
    if (init?.signal?.aborted) throw new DOMException('aborted', 'AbortError');
    const answer = list.shift() ?? {};
    return {
      status: 'status' in answer ? 400 : 200,
      ok: !('status' in answer),
      text: async () => JSON.stringify({ ...usual, ...answer }),
    } as Response;
  }) as typeof fetch;
  return calls;
}
/** Resolves when all that was set going has come to rest. */
export async function settled(): Promise<void> {
  for (let i = 0; i < 60; i++) await Promise.resolve();
  await nextTick();
}
/** The calls that were made so far, with the body that each sent. */
export const sent = (): { method: string; path: string; body: unknown }[] =>
  (globalThis.fetch as jest.MockedFunction<typeof fetch>).mock.calls.map(([input, init]) => ({
    method: init?.method ?? 'GET',
    path: new URL(String(input), 'http://page.example').pathname,
    body: typeof init?.body === 'string' ? (JSON.parse(init.body) as unknown) : undefined,
  }));
