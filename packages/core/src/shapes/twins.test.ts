import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { fitting, groupTwins, type CorrectedShape, type SaidShape } from './twins.ts';

const list = (...texts: (string | [string, number])[]): SaidShape[] =>
  texts.map((one, id) => (typeof one === 'string' ? { id, text: one, count: 1 } : { id, text: one[0], count: one[1] }));
const texts = (shapes: SaidShape[], corrected: CorrectedShape[] = []): string[] => [...new Set(groupTwins(shapes, corrected).values())].sort();

describe('near twins', () => {
  test('names of users are values, whatever was said how often', () => {
    const users = ['anna', 'ben', 'carla', 'dora', 'emil'].map((name): [string, number] => [
      `user ${name} logged in from ‹›`,
      name === 'anna' ? 90 : 1,
    ]);
    expect(texts(list(...users, ['user session ended after ‹›', 7]))).toEqual(['user session ended after ‹›', 'user ‹› logged in from ‹›']);
  });
  test('words of a closed class stay: each came again and again', () => {
    const tables = ['orders', 'shops', 'lenses', 'frames', 'stock'].map((table): [string, number] => [`select ‹› from ${table} where id`, 400]);
    expect(texts(list(...tables))).toHaveLength(5);
  });
  test('two words that change places are no values: opened and closed say different things', () => {
    expect(texts(list('connection opened by ‹›', 'connection closed by ‹›', 'connection lost by ‹›'))).toHaveLength(3);
  });
  test('values at two places are found one after the other', () => {
    const both = ['anna', 'ben', 'carla', 'dora'].flatMap((name) =>
      ['desk', 'till', 'hall', 'yard'].map((place) => `user ${name} entered the ${place}`),
    );
    expect(texts(list(...both))).toEqual(['user ‹› entered the ‹›']);
  });
  test('too few words left is no sentence any more', () => {
    expect(texts(list('alpha went', 'beta went', 'gamma went', 'delta went', 'omega went'))).toHaveLength(5);
  });
  test('what people said holds: one, or apart', () => {
    const doors = list('door north is open', 'door south is open', 'door west is open');
    expect(texts(doors, [{ text: 'door ‹› is open', is: 'one' }])).toEqual(['door ‹› is open']);
    const users = list('user anna logged in', 'user ben logged in', 'user carla logged in', 'user dora logged in');
    expect(texts(users, [{ text: 'user ‹› logged in', is: 'apart' }])).toHaveLength(4);
  });
  test('in whatever order they come, the groups are the same; each shape is in just one whose text it fits', () => {
    const word = fc.constantFrom('anna', 'ben', 'carla', 'dora', 'emil', 'went', 'came', 'home', '‹›', 'late');
    const shapes = fc.uniqueArray(
      fc.tuple(word, word, word, word).map((parts) => parts.join(' ')),
      { maxLength: 60 },
    );
    fc.assert(
      fc.property(shapes, fc.infiniteStream(fc.nat(3)), fc.integer(), (all, counts, seed) => {
        const said = all.map((text, id) => ({ id, text, count: 1 + counts.next().value! * 40 }));
        const groups = groupTwins(said);
        expect(groups.size).toBe(said.length);
        for (const { id, text } of said) expect(fitting(groups.get(id)!)(text)).toBe(true);
        const mixed = [...said].sort((a, b) => ((a.id * 7919 + seed) % 101) - ((b.id * 7919 + seed) % 101));
        for (const [id, text] of groupTwins(mixed)) expect(text).toBe(groups.get(id));
      }),
    );
  });
});
