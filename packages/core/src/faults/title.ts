import type { Origin } from './origin.ts';

/** What a fault is called: the innermost that was thrown and the call in which it came up, else what is said with the values that tell results apart. */
export function faultTitle({
  types,
  calls,
  said,
  traits,
  words = '',
}: Pick<Origin, 'types' | 'calls' | 'traits'> & Partial<Pick<Origin, 'words'>> & { /** Words of its shape. */ said: string }): string {
  const thrown = types.at(-1);
  const part = words === '' ? '' : `, with “${words}”`;
  if (thrown === undefined && calls.length === 0)
    return `${said === '' ? 'a record without words' : `${said}${traits === '' ? '' : ` (${traits})`}`}${part}`;
  return `${[thrown ?? 'broke off', ...(calls[0] === undefined ? [] : [`in ${calls[0]}`])].join(' ')}${part}`;
}
