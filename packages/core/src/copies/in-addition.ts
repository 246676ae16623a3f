import { common, wordsOf } from './words.ts';

type Fields = Readonly<Record<string, string | number | boolean>>;

/** What a copy tells that is not said yet: fields of names that are not there, with a word that is not said. */
export function inAddition(words: Int32Array, fields: Fields, copy: Fields): Record<string, string | number | boolean> | null {
  const more: Record<string, string | number | boolean> = {};
  let any = false;
  for (const name in copy) {
    if (name in fields) continue;
    const own = wordsOf([String(copy[name])]);
    if (common(own, words) === own.length) continue;
    more[name] = copy[name]!;
    any = true;
  }
  return any ? more : null;
}
