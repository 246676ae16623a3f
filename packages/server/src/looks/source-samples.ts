import { betterElsewhere, decode, placesIn, SLICE, type Encoding } from '@fadenweg/core/reading';
import type { Database } from '../database/connect.ts';
import type { KeptBytesRepository } from '../evidence/kept-bytes.ts';
import type { SourceRow } from '../evidence/sources.ts';

/** Bytes of a beginning by which a source is read at first. */
const SAMPLE = 1 << 16;
/** Records that were not understood, and their share, from which on other places of a source are looked at. */
const FEWEST = 20;
const SHARE = 0.1;
const MOST_SOURCES = 200;

export type BetterSamples = Pick<SourceRow, 'id' | 'format' | 'confidence' | 'hints'>;

/** Finds out, once an import is read, which sources are not written as their beginning is: they are read by other places of theirs. */
export class SourceSamples {
  constructor(
    private readonly db: Database,
    private readonly bytes: KeptBytesRepository,
  ) {}

  /** Sources of an import that are to be read otherwise; each is looked at once, and what a person said stays. */
  async better(importId: number): Promise<BetterSamples[]> {
    const own: SourceRow[] = await this.db('source')
      .where({ read_for: importId, state: 'done', growing: false })
      .where('size', '>', SAMPLE)
      .whereRaw(`records - understood >= ? and records - understood >= ?::float8 * records`, [FEWEST, SHARE])
      .whereRaw(`hints->'sampleAt' is null and hints->>'timePattern' is null and hints->>'formatBy' is null`)
      .orderBy('id')
      .limit(MOST_SOURCES)
      .select('*');
    const found: BetterSamples[] = [];
    for (const source of own) {
      const better = await this.betterOf(source);
      if (better) found.push(better);
    }
    return found;
  }

  private async betterOf({ id, path, size, format, encoding, hints, zone }: SourceRow): Promise<BetterSamples | null> {
    const text = async (from: number, length: number): Promise<string> =>
      decode(await this.bytes.stretch(id, from, from + length), encoding as Encoding);
    const places = placesIn(size);
    const slices = await Promise.all(places.map((place) => text(place, SLICE)));
    const better = betterElsewhere(path, { format, beginning: await text(0, SAMPLE) }, slices, hints, zone);
    if (!better) return null;
    const { by, ...change } = better;
    return { id, ...change, hints: { ...change.hints, sampleAt: by.map((place) => places[place]!) } };
  }
}
