import { describe, expect, it } from '@jest/globals';
import { LAYOUTS } from './layouts.ts';
import { isApart, scoreLayouts } from './score.ts';
import { writtenBy } from './written.ts';

const share = <Item>(all: readonly Item[], fits: (one: Item) => boolean): number => all.filter(fits).length / all.length;

describe('layouts as they are met in practice', () => {
  for (const lines of [3, 10, 100])
    it(`are read rightly in files of ${lines} lines`, () => {
      const scores = [...scoreLayouts(false, lines), ...scoreLayouts(true, lines)];
      expect(scores.filter((one) => !one.records || !one.time).map((one) => one.template)).toEqual([]);
      expect(share(scores, (one) => one.level)).toBeGreaterThanOrEqual(0.93);
      expect(share(scores, (one) => one.message)).toBeGreaterThanOrEqual(0.93);
    });
  it('are written as their templates tell', () => {
    const { lines, exact } = writtenBy('<yyyy-MM-dd HH:mm:ss,SSS> [{thread.main}] {L.upper} {logger.cls} - [[* {msg}]]', 3, 5);
    expect(exact).toBe(true);
    for (const { text, at, thread, message } of lines) {
      expect(text.startsWith(`${new Date(at / 1000).toISOString().slice(0, 23).replace('T', ' ').replace('.', ',')} [main] `)).toBe(true);
      expect([thread, message.startsWith('* '), text.endsWith(message)]).toEqual(['main', true, true]);
    }
  });
  it('are kept apart by their writer: all that one writes, or none', () => {
    const apart = LAYOUTS.filter(([writer]) => isApart(writer));
    expect(apart.length / LAYOUTS.length).toBeGreaterThan(0.2);
    expect(apart.length / LAYOUTS.length).toBeLessThan(0.35);
  });
});
