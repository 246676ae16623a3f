import { expect, test } from '@jest/globals';
import { effectScope } from 'vue';
import { commandsFor, commandsNow, keyWords, useCommands, usePlaces } from './commands.ts';
import { lead } from './use-keys.ts';

const press = (key: string, more: KeyboardEventInit = {}): boolean =>
  document.body.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true, ...more })); // prettier-ignore

test('commands are there as long as the part of the page that brings them, and each key does what is told of it', () => {
  const done: string[] = [];
  const scope = effectScope();
  let can = false;
  scope.run(() => {
    useCommands('', [{ name: 'light or dark', keys: ['t'], run: () => done.push('look') }]);
    useCommands('This strand', [
      { name: 'next record', keys: ['j', 'ArrowDown'], run: () => done.push('next') },
      { name: 'zoom in', keys: ['+'], can: () => can, run: () => done.push('zoom') },
      { name: 'beside it: Data', keys: [], run: () => done.push('data') },
    ]);
  });
  expect(commandsNow().map(({ name }) => name)).toEqual(['next record', 'zoom in', 'beside it: Data', 'light or dark']);
  for (const key of ['j', 'ArrowDown', '+', 't', 'x']) press(key);
  expect(done).toEqual(['next', 'next', 'look']);
  can = true;
  press('+');
  press('j', { ctrlKey: true });
  expect(done.slice(3)).toEqual(['zoom']);
  scope.stop();
  expect(commandsNow()).toEqual([]);
  press('j');
  expect(done).toHaveLength(4);
});

test('they are found by their words, in any order, and only what can be done', () => {
  const scope = effectScope();
  scope.run(() => {
    useCommands('This strand', [
      { name: 'next record', keys: ['j'], run() {} },
      { name: 'zoom in', keys: ['+'], can: () => false, run() {} },
    ]);
    useCommands('', [{ name: 'light or dark', keys: ['t'], run() {} }]);
  });
  const names = (text: string): string[] => commandsFor(text).map(({ name }) => name);
  expect(names('')).toEqual(['next record', 'light or dark']);
  expect(names('  RECORD  ne')).toEqual(['next record']);
  expect(names('strand')).toEqual(['next record']);
  expect(names('zoom')).toEqual([]);
  scope.stop();
});

test('places are gone to by the key that leads and a letter, and their letter alone does nothing', () => {
  const gone: string[] = [];
  const scope = effectScope();
  scope.run(() => usePlaces([{ name: 'Calls', letter: 'l', go: () => gone.push('calls') }]));
  press('l');
  expect(gone).toEqual([]);
  lead();
  press('l');
  expect(gone).toEqual(['calls']);
  expect(commandsNow()[0]).toMatchObject({ name: 'go to Calls', keys: ['g l'], where: '' });
  commandsNow()[0]!.run();
  expect(gone).toHaveLength(2);
  expect(['ArrowDown', 'Escape', 'j'].map(keyWords)).toEqual(['↓', 'Esc', 'j']);
  scope.stop();
});
