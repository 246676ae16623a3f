import { dateOrderOf } from './calendar.ts';
import { encode } from './encoding.ts';
import { LayoutTrial } from './layout-trial.ts';
import { lacksOf } from './lacking.ts';
import { guessFormats, lacksDay, sampleOf } from './registry.ts';
import { SLICE, withSlices } from './sample.ts';
import type { ReadingHints, Sample } from './types.ts';

/** So much more of what is looked at has to be understood, for a source to be read otherwise. */
const BETTER = 0.1;

/**
 * How a source is read better that was read by its beginning: a banner, a dump of settings or another program may have come first.
 *
 * @param now how it is read, and the beginning by which that was told
 * @param slices of other places (see `placesIn`)
 * @returns its format, how sure that is, by which of the slices it is told, and what its times do not say; null where nothing is better
 */
export function betterElsewhere(
  path: string,
  now: { format: string; beginning: string },
  slices: readonly string[],
  hints: ReadingHints,
  zone: string,
): { format: string; confidence: number; by: number[]; hints: ReadingHints } | null {
  const all = withSlices([now.beginning.slice(0, SLICE), ...slices]);
  const least = read(now.format, sampleOf(path, now.beginning, false), hints, zone, all).share + BETTER;
  const guesses = slices.map((slice) => guessFormats(sampleOf(path, withSlices([slice]), true))[0]?.format);
  const found = [...new Set(guesses)].flatMap((guessed) => {
    const by = slices.flatMap((_, i) => (guesses[i] === guessed ? [i] : []));
    const text = withSlices(by.map((i) => slices[i]!));
    const sample = sampleOf(path, text, true);
    const best = guessFormats(sample)[0];
    if (!best || lacksDay(best.format, sample)) return [];
    const own = inOrder(hints, text);
    const { share, first } = read(best.format, sample, own, zone, all);
    return share < least || first === null ? [] : [{ ...best, by, share, hints: { ...own, ...lacksOf(best.format, sample, first, own) } }];
  });
  if (found.length === 0) return null;
  const { share: _share, ...best } = found.reduce((most, one) => (one.share > most.share ? one : most));
  return best;
}

/** With the order of the dates in a text, unless a person set it. */
function inOrder(hints: ReadingHints, text: string): ReadingHints {
  const order = hints.orderBy === 'set' ? null : dateOrderOf(text, hints.modified);
  if (!order) return hints;
  const { orderBy: _orderBy, ...rest } = hints;
  return { ...rest, dateOrder: order.order, ...(order.certain ? {} : { orderBy: 'guessed' }) };
}

function read(format: string, sample: Sample, hints: ReadingHints, zone: string, text: string): { share: number; first: string | null } {
  const trial = new LayoutTrial(format, sample, { ...hints, zone }, 'utf-8');
  trial.feed(encode(text), true);
  const { records, understood, examples } = trial.result;
  return { share: records === 0 ? 0 : understood / records, first: examples[0]?.text ?? null };
}
