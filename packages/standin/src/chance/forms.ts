import type { Random } from '../writing/random.ts';
import { inventedWord } from './words.ts';

/** How the values of one kind of identifier look. */
export interface Form {
  /** Name of its kind, which fields and texts use. */
  name: string;
  make(random: Random): string;
  /** A pattern that finds it in every spelling, as somebody would declare it. */
  pattern: string;
  /** Spellings other than the usual one. */
  spellings: readonly Spelling[];
}
export type Spelling = (value: string) => string;

const usual: Spelling = (value) => value;
const LETTERS = 'ABCDEFGHKLMNPRSTUVWXYZ';
const letters = (random: Random, length: number): string => Array.from({ length }, () => random.pick([...LETTERS])).join('');
const digits = (random: Random, length: number): string => String(random.whole(0, 10 ** length - 1)).padStart(length, '0');

/** A number that people ask by: letters, a separator, digits, perhaps a part of its own or a check letter behind. */
export function businessForm(random: Random, name: string, taken: ReadonlySet<string>): Form & { prefix: string } {
  let prefix = letters(random, random.whole(1, 4));
  while (taken.has(prefix)) prefix = letters(random, random.whole(2, 4));
  const separator = random.pick(['-', '-', '-', '', '', '/', '_', '.']);
  const length = random.whole(5, 9);
  const year = separator !== '' && random.chance(0.25) ? `26${separator}` : '';
  const check = random.chance(0.25);
  const counter = random.chance(0.5);
  let next = random.whole(10 ** (length - 1), 5 * 10 ** (length - 1));
  const body = (own: Random): string => {
    if (!counter) return digits(own, length);
    next += own.whole(1, 3);
    return String(next);
  };
  const bar = check && separator !== '' ? separator : '';
  const escaped = (text: string): string => text.replace(/[/.]/g, '\\$&');
  const anySeparator = separator === '' ? '' : '[-/_. ]?';
  return {
    name,
    prefix,
    make: (own) => `${prefix}${separator}${year}${body(own)}${bar}${check ? own.pick([...LETTERS]) : ''}`,
    pattern: `[${prefix[0]!}${prefix[0]!.toLowerCase()}]${[...prefix.slice(1)].map((one) => `[${one}${one.toLowerCase()}]`).join('')}${anySeparator}${year === '' ? '' : `26${anySeparator}`}\\d{${length}}${check ? `${bar === '' ? '' : anySeparator}[A-Za-z]` : ''}`,
    spellings: [
      usual,
      usual,
      (value) => value.toLowerCase(),
      ...(separator === '' ? [] : [(value: string) => value.replace(new RegExp(escaped(separator), 'g'), '')]),
      ...(separator === '-' ? [(value: string) => value.replace(/-/g, '/')] : []),
    ],
  };
}

/** What ties records technically; each value is used once. */
export function linkForm(random: Random, name: string): Form {
  const start = random.whole(100_000, 900_000);
  let next = start;
  const short = inventedWord(random, 1);
  const forms: (() => Omit<Form, 'name' | 'pattern'>)[] = [
    () => ({ make: (own) => own.hex(16), spellings: [usual] }),
    () => ({ make: (own) => own.hex(32), spellings: [usual] }),
    () => ({ make: (own) => uuid(own), spellings: [usual, (value) => value.toUpperCase()] }),
    () => ({ make: (own) => `${short}-${own.hex(10)}`, spellings: [usual] }),
    () => ({ make: (own) => `${short}_${own.hex(12)}`, spellings: [usual] }),
    () => ({ make: () => `${short}${(next += 1)}`, spellings: [usual] }),
    () => ({ make: (own) => own.hex(12), spellings: [usual] }),
    () => ({ make: (own) => `${digits(own, 4)}.${own.hex(8)}`, spellings: [usual] }),
  ];
  return { name, pattern: '', ...random.pick(forms)() };
}
const uuid = (random: Random): string => `${random.hex(8)}-${random.hex(4)}-4${random.hex(3)}-a${random.hex(3)}-${random.hex(12)}`;
