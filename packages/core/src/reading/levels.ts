import type { Level } from '../units.ts';

const WORDS: Record<Exclude<Level, 0>, string> = {
  1: 'trace finest finer all verbose',
  2: 'debug fine dbg debug1 debug2 debug3 debug4 debug5',
  3: 'info information informational notice log config statement ok audit success',
  4: 'warning warn wrn attention',
  5: 'error err eror severe failure fail failed',
  6: 'fatal critical crit panic emergency emerg alert',
};
const BY_WORD = new Map<string, Level>();
for (const [level, words] of Object.entries(WORDS)) {
  for (const word of words.split(' ')) BY_WORD.set(word, Number(level) as Level);
}

/** The level that a word stands for in any case, 0 where it stands for none. */
export function levelOf(word: string): Level {
  return BY_WORD.get(word) ?? BY_WORD.get(word.toLowerCase()) ?? 0;
}

/** Severity numbers of RFC 5424, section 6.2.1 (0 emergency to 7 debug). */
export function levelOfSeverity(severity: number): Level {
  if (severity <= 2) return 6;
  if (severity === 3) return 5;
  if (severity === 4) return 4;
  return severity <= 6 ? 3 : 2;
}
