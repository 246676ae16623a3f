import { onScopeDispose, shallowReactive } from 'vue';
import { isLed, useKeys } from './use-keys.ts';

/** Something that can be done on the page now, by key or from the field of commands. */
export interface Command {
  /** What it does, in words. */
  name: string;
  /** Keys as the browser names them; none for what has no key. Of places, `g` and the letter behind it. */
  keys: readonly string[];
  /** The view that it is of; '' for everywhere. */
  where: string;
  run(): void;
  /** Whether it can be done just now; left out, always. */
  can?(): boolean;
}
type Own = Omit<Command, 'where'>;

const all = shallowReactive<Command[]>([]);

/** The commands of what is on the page: those of the view first, then those that are everywhere. */
export function commandsNow(): Command[] {
  return [...all.filter(({ where }) => where !== ''), ...all.filter(({ where }) => where === '')];
}
/** Those whose name or view has each of the words that are typed, and that can be done now. */
export function commandsFor(text: string): Command[] {
  const words = text.toLowerCase().split(/\s+/).filter(Boolean); // prettier-ignore
  return commandsNow().filter(({ name, where, can }) => {
    const said = `${name} ${where}`.toLowerCase();
    return (can?.() ?? true) && words.every((word) => said.includes(word));
  });
}

/** Commands of a part of the page, as long as it is there. */
export function useCommands(where: string, own: readonly Own[]): void {
  const keys: Record<string, () => void> = {};
  for (const { keys: names, run, can } of own)
    for (const name of names)
      keys[name] = () => {
        if (can?.() ?? true) run();
      };
  useKeys(keys);
  register(own.map((one) => ({ ...one, where })));
}
/** Places to go to: the key that leads, then a letter. */
export function usePlaces(places: readonly { name: string; letter: string; go(): void }[]): void {
  const keys: Record<string, () => void> = {};
  for (const { letter, go } of places)
    keys[letter] = () => {
      if (isLed()) go();
    };
  useKeys(keys, true);
  register(places.map(({ name, letter, go }) => ({ name: `go to ${name}`, keys: [`g ${letter}`], where: '', run: go })));
}
function register(commands: readonly Command[]): void {
  all.push(...commands);
  onScopeDispose(() => {
    for (const one of commands) all.splice(all.indexOf(one), 1);
  });
}
/** A key as it is written on it. */
export const keyWords = (key: string): string =>
  ({ ArrowDown: '↓', ArrowUp: '↑', ArrowLeft: '←', ArrowRight: '→', Escape: 'Esc' })[key] ?? key; // prettier-ignore
