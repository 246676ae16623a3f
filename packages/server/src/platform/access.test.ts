import { describe, expect, test } from '@jest/globals';
import { readdir, readFile } from 'node:fs/promises';
import { Access, Guarded, guarded } from './access.ts';

describe('access', () => {
  test('what stands behind it is made once for each access, and knows whose it is', () => {
    let made = 0;
    const behind = guarded((access) => ({ number: ++made, who: access.who }));
    expect(behind.by(Access.localAdministrator)).toEqual({ number: 1, who: 'local administrator' });
    expect(behind.by(Access.ownWork)).toEqual({ number: 2, who: 'supplied' });
    expect(behind.by(Access.localAdministrator)).toBe(behind.by(Access.localAdministrator));
    expect(made).toBe(2);
  });

  test('nothing can be passed off as an access, and what is guarded shows nothing without one', () => {
    // @ts-expect-error an access cannot be made anywhere else
    const forged = (): Access => new Access('somebody');
    // @ts-expect-error nor does what looks like one pass for one
    const alike: Access = { who: 'somebody' };
    const behind = guarded(() => ({ secret: 'the numbers of the orders' }));
    // @ts-expect-error without an access there is nothing to reach
    expect(behind.secret).toBeUndefined();
    expect(JSON.stringify(behind)).toBe('{}');
    expect([forged().who, alike.who]).toEqual(['somebody', 'somebody']);
    expect(Object.getOwnPropertyNames(behind)).toEqual([]);
  });

  test('every room hands out what reads or changes behind it: no repository stands in a door', async () => {
    const folder = new URL('../', import.meta.url);
    const rooms = (await readdir(folder, { withFileTypes: true })).filter((one) => one.isDirectory());
    let doors = 0;
    for (const { name } of rooms) {
      const door = await readFile(new URL(`${name}/room.ts`, folder), 'utf8').catch(() => '');
      const handed = /export interface \w+ extends Room \{([^}]*)\}/.exec(door)?.[1] ?? '';
      for (const [, type] of handed.matchAll(/^ {2}\w+: (.*);$/gm)) {
        doors++;
        // what works by itself, or takes the access of each change that it is asked for, is named here
        if (
          !/^(?:Weaving|Reread|SourceSamples|SourceSnapshots|SourceLanes|SourceTimes|SourceNames|SourceEnds|Discovery|Clocks|Copies|RoleGuard)$/.test(
            type!,
          )
        )
          expect(type).toMatch(/^Guarded</);
      }
    }
    expect(doors).toBeGreaterThan(12);
    expect(guarded(() => ({}))).toBeInstanceOf(Guarded);
  });
});
