import { describe, expect, test } from '@jest/globals';
import { namesByFolder, type NamedSource, type SourceBeside } from './host-folders.ts';

const shapes = (from: number): number[] => Array.from({ length: 10 }, (_, i) => from + i);
const named = (path: string, component: string): NamedSource => ({ path, component, host: '', componentFixed: false, hostFixed: false });
const none = new Set<string>();

describe('what lies in folders', () => {
  test('of a folder that holds several programs the files tell what wrote them', () => {
    const beside: SourceBeside[] = [
      { path: 'logs/works/desk.log', shapes: shapes(1) },
      { path: 'logs/works/press.log', shapes: shapes(100) },
    ];
    expect(namesByFolder(beside, none)(named('logs/works/desk.log', 'works'))).toEqual({ component: 'desk', host: '' });
  });
  test('where another folder has the same program, each of them is a machine', () => {
    const beside: SourceBeside[] = ['alder', 'birch'].flatMap((host) => [
      { path: `logs/${host}/desk.log`, shapes: shapes(1) },
      { path: `logs/${host}/press.log`, shapes: shapes(100) },
    ]);
    expect(namesByFolder(beside, none)(named('logs/birch/press.log', 'birch'))).toEqual({ component: 'press', host: 'birch' });
  });
  test('files that say the same are instances of one program, which the folder names', () => {
    const beside: SourceBeside[] = ['alder', 'birch'].map((host) => ({ path: `desk/${host}.log`, shapes: shapes(1) }));
    expect(namesByFolder(beside, none)(named('desk/birch.log', 'desk'))).toEqual({ component: 'desk', host: '' });
  });
  test('a file in the folder of its program may have the name of a machine that records name, or be one of many such', () => {
    const beside: SourceBeside[] = ['desk', 'press'].flatMap((program) =>
      ['alder4', 'birch5', 'cedar6'].map((host) => ({ path: `${program}/${host}.log`, shapes: shapes(1) })),
    );
    const hosts = (...names: string[]) => namesByFolder(beside, new Set(names));
    const cedar = named('desk/cedar6.log', 'desk');
    expect(hosts('cedar6')(cedar)).toEqual({ component: 'desk', host: 'cedar6' });
    expect(hosts('alder4', 'birch5')(cedar)).toEqual({ component: 'desk', host: 'cedar6' });
    expect(hosts('alder4')(cedar)).toEqual({ component: 'desk', host: '' });
    expect(hosts('alder4', 'birch5')({ ...cedar, host: 'elm', hostFixed: true })).toEqual({ component: 'desk', host: 'elm' });
  });
  test('a file that says one thing alone tells nothing, and neither do parts of one log by their names', () => {
    const beside: SourceBeside[] = [
      { path: 'desk/first.log', shapes: shapes(1) },
      { path: 'desk/second.log', shapes: shapes(3) },
      { path: 'desk/third.log', shapes: [99] },
      { path: 'desk/fourth.log', shapes: shapes(200) },
    ];
    expect(namesByFolder(beside, none)(named('desk/third.log', 'desk'))).toEqual({ component: 'desk', host: '' });
    expect(namesByFolder(beside.slice(0, 3), none)(named('desk/first.log', 'desk'))).toEqual({ component: 'desk', host: '' });
  });
  test('where records name the folder as their host, it is one; what a person said stays', () => {
    const beside: SourceBeside[] = [{ path: 'alder/desk.log', shapes: [] }];
    expect(namesByFolder(beside, new Set(['alder']))(named('alder/desk.log', 'alder'))).toEqual({ component: 'desk', host: 'alder' });
    const fixed = { ...named('alder/desk.log', 'alder'), componentFixed: true, hostFixed: true };
    expect(namesByFolder(beside, new Set(['alder']))(fixed)).toEqual({ component: 'alder', host: '' });
  });
});
