import { expect, test } from '@jest/globals';
import { spentOf, workedOf } from './spent.ts';
import type { TimeShare } from './types.ts';

test('databases work and lock; on the way are queues and gaps; the rest is neither', () => {
  const time: TimeShare[] = [
    { component: 'labdb', kind: 'work', time: 3 },
    { component: 'labdb', kind: 'lock-wait', time: 8000 },
    { component: 'labdb', kind: 'waiting', time: 5 },
    { component: 'relay', kind: 'queue', time: 40 },
    { component: null, kind: 'gap', time: 7 },
    { component: 'desk', kind: 'work', time: 100 },
  ];
  expect(spentOf({ time }, (component) => component === 'labdb')).toEqual({ inDatabase: 8003, inTransit: 47 });
  expect([...workedOf({ time })]).toEqual([
    ['labdb', 8003],
    ['desk', 100],
  ]);
});
