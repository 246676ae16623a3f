import { describe, expect, test } from '@jest/globals';
import { withoutSoleFolder } from './dropped.ts';

const paths = (...list: string[]): string[] => withoutSoleFolder(list.map((path) => ({ path }))).map(({ path }) => path);

describe('what was dropped', () => {
  test('as one folder of several programs’ logs goes by the files’ names', () => {
    expect(paths('night shift/relay.log', 'night shift/labdb.csv')).toEqual(['relay.log', 'labdb.csv']);
  });
  test('as a folder of one program keeps its name', () => {
    expect(paths('order-desk/app.log', 'order-desk/gc.log')).toEqual(['order-desk/app.log', 'order-desk/gc.log']);
    expect(paths('switch/sip.log')).toEqual(['switch/sip.log']);
  });
  test('with folders in it, or beside others, stays as it is', () => {
    const deeper = ['night shift/relay.log', 'night shift/labdb/main.csv', 'night shift/gate.log'];
    expect(paths(...deeper)).toEqual(deeper);
    expect(paths('a/relay.log', 'b/labdb.csv')).toEqual(['a/relay.log', 'b/labdb.csv']);
    expect(paths('relay.log', 'labdb.csv')).toEqual(['relay.log', 'labdb.csv']);
    expect(paths()).toEqual([]);
  });
});
