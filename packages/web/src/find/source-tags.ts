import type { SourceInfo } from '@fadenweg/api';

export interface SourceTag {
  letter: string;
  /** 0 to 5; neighbours in the list differ. */
  shade: number;
  path: string;
}
const SHADES = 6;

/** A letter for each source, two from the 27th on, and one of six shades. */
export function sourceTags(sources: readonly Pick<SourceInfo, 'id' | 'path'>[]): Map<number, SourceTag> {
  return new Map(sources.map(({ id, path }, i) => [id, { letter: letters(i), shade: i % SHADES, path }]));
}
function letters(place: number): string {
  const last = String.fromCharCode(65 + (place % 26));
  return place < 26 ? last : letters(Math.floor(place / 26) - 1) + last;
}
