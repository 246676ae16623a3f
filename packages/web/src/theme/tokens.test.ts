import { describe, expect, test } from '@jest/globals';
import { DARK, LIGHT } from './tokens.ts';

/** Contrast ratio of WCAG 2.2. */
function contrast(a: string, b: string): number {
  const light = (hex: string): number => {
    const [r, g, blue] = [1, 3, 5]
      .map((at) => parseInt(hex.slice(at, at + 2), 16) / 255)
      .map((c) => (c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4));
    return 0.2126 * r! + 0.7152 * g! + 0.0722 * blue!;
  };
  const [x, y] = [light(a), light(b)].sort((p, q) => q - p);
  return (x! + 0.05) / (y! + 0.05);
}
describe.each([
  ['light', LIGHT],
  ['dark', DARK],
] as const)('%s theme', (_name, palette) => {
  test.each(['ink', 'softInk', 'indigo', 'woad', 'weld', 'madder', 'heather', 'walnut'] as const)('%s can be read on every ground', (text) => {
    for (const ground of ['linen', 'paper'] as const) expect(contrast(palette[text], palette[ground])).toBeGreaterThanOrEqual(4.5);
  });
});
