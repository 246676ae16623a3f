import type { Level } from '../units.ts';

const WORDS: Record<Exclude<Level, 0>, string> = {
  1: 'trace finest finer all verbose silly fein feinst ausführlich trac',
  2: 'debug fine dbg dbug deb debug1 debug2 debug3 debug4 debug5 debu',
  3:
    'info inf information informational notice log config statement ok audit success default note system ' +
    'hinweis konfiguration konfig meldung infos información informacion informazioni informazione informatie melding nota avviso',
  4: 'warning warn wrn attention warnung achtung avertissement advertencia aviso avvertenza avvertimento attenzione waarschuwing',
  5: 'error err erro eror severe failure fail failed fehler schwerwiegend fehlgeschlagen erreur grave errore fout ernstig',
  6: 'fatal fata critical crit panic pani emergency emerg alert kritisch panik notfall critique fatale crítico critico fataal',
};
const BY_WORD = new Map<string, Level>();
for (const [level, words] of Object.entries(WORDS)) {
  for (const word of words.split(' ')) BY_WORD.set(word, Number(level) as Level);
}

/** The level that a word stands for in any case, 0 where it stands for none. */
export function levelOf(word: string): Level {
  return BY_WORD.get(word) ?? BY_WORD.get(word.toLowerCase()) ?? 0;
}

/** Verbose and trace, debug, info and notice, warning, error, fatal and critical. */
const LETTERS: Record<string, Level> = { V: 1, T: 1, D: 2, I: 3, N: 3, W: 4, E: 5, F: 6, C: 6 };

/** The level that a single letter stands for at a level's place. */
export function levelOfLetter(letter: string): Level {
  return LETTERS[letter] ?? 0;
}

/** Severity numbers of RFC 5424, section 6.2.1 (0 emergency to 7 debug). */
export function levelOfSeverity(severity: number): Level {
  if (severity <= 2) return 6;
  if (severity === 3) return 5;
  if (severity === 4) return 4;
  return severity <= 6 ? 3 : 2;
}

/** Level of an answer by its class (RFC 9110, section 15). */
export const levelOfStatus = (status: number): Level => (status >= 500 ? 5 : status >= 400 ? 4 : status >= 100 ? 3 : 0);
