import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { fileOfFrame, fileOfLogger, type Called } from './frame-place.ts';
import { lineOfMessage } from './message-place.ts';

const called = (more: Partial<Called>): Called => ({ code: '', unit: '', file: null, line: null, ...more });
const PATHS = ['src/main/java/calc/grid/Rings.java', 'src/main/java/calc/old/Rings.java', 'src/main/java/calc/Surface.java', 'web/app/rings.js', 'Makefile']; // prettier-ignore

describe('the file of a call', () => {
  test.each<[string, Partial<Called>, string | null]>([
    ['by its package and file', { code: 'Rings.shift', unit: 'calc.grid', file: 'Rings.java' }, PATHS[0]!],
    ['by its file alone where only one has the name', { file: 'Surface.java' }, PATHS[2]!],
    ['by its folders', { file: '/srv/build/web/app/rings.js' }, PATHS[3]!],
    ['by folders of another system', { file: 'C:\\work\\calc\\old\\Rings.java' }, PATHS[1]!],
    ['by its class where no file is told', { code: 'Surface.compute', unit: 'calc' }, PATHS[2]!],
    ['is not known of two that fit alike', { file: 'Rings.java' }, null],
    ['is not known of a package that is neither', { unit: 'other', file: 'Rings.java' }, null],
    ['is not known of a file that is not there', { unit: 'calc', file: 'Worker.java' }, null],
    ['is not known of nothing', {}, null],
  ])('%s', (_, frame, path) => expect(fileOfFrame(called(frame), PATHS)).toBe(path));
  test.each([['calc.Surface', PATHS[2]!], ['calc.grid.Rings', PATHS[0]!], ['Rings', null], ['app/rings', PATHS[3]!], ['', null]])('of logger %s is %s', (logger, path) => expect(fileOfLogger(logger, PATHS)).toBe(path)); // prettier-ignore
});

describe('the line that writes a message', () => {
  const text = [
    'class Surface {',
    '  // computed surface of a lens',
    '  void compute(Lens lens) {',
    '    log.info("computing " + lens.id() + " with " + rings + " rings");',
    '    log.warn("ring {} is off by {} µm",',
    '        ring, error);',
    '    log.info(String.format("%s: surface of %d points " +',
    '        "is smooth again", id, count));',
    '    log.error("surface of " + id + " failed", thrown);',
    '  }',
  ].join('\n');
  test.each<[string, number | null]>([
    ['computing LX-204817 with 37 rings', 4],
    ['ring 12 is off by 0.4 µm', 5],
    ['LX-204817: surface of 4012 points is smooth again', 7],
    ['surface of LX-1 failed', 9],
    ['computed surface of a lens', null],
    ['something else altogether happened', null],
    ['37', null],
  ])('%s', (message, line) => expect(lineOfMessage(text, message)).toBe(line));
  test('is not told where two lines fit alike', () => {
    expect(lineOfMessage('a("lens is ready");\nb("lens is ready");', 'lens is ready')).toBeNull();
  });
  test('is a line of the text, whatever text and message are', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'binary', maxLength: 300 }), fc.string({ unit: 'binary', maxLength: 100 }), (source, message) => {
        const line = lineOfMessage(source, message);
        if (line !== null) expect(line).toBeLessThanOrEqual(source.split('\n').length);
      }),
    );
  });
});
