import type { Strand } from '@fadenweg/api';
import { OUTCOME_WORDS } from '../glyphs/outcomes.ts';
import { dayAndClock } from '../time/format.ts';
import { fontsFor } from './fonts.ts';
import { colour, cut, make, MARGIN, NS, SANS, text } from './picture-parts.ts';
import type { SvgPicture } from './picture-png.ts';

/** Height of the title and what was found. */
export const TITLE = 66;
export const LEGEND = 56;
/** Of a letter of the sentence, in pixels. */
const LETTER = 7.2;

/** A strand's picture as an SVG file: what it is about above, what its signs mean below, with the letters that it needs. */
export async function framed(strand: Strand, width: number, height: number, body: SVGElement[], legend: SVGElement): Promise<SvgPicture> {
  const root = make('svg', { xmlns: NS, width, height, viewBox: `0 0 ${width} ${height}` });
  root.append(make('rect', { width, height, fill: colour('linen') }));
  root.append(text(`${strand.name} · ${strand.flowLabel}, ${OUTCOME_WORDS[strand.outcome]}`, MARGIN, 28, `700 18px ${SANS}`, colour('ink')));
  const about = strand.findings[0]?.sentence ?? `${dayAndClock(strand.startedAt)} – ${dayAndClock(strand.endedAt)}`;
  root.append(text(cut(about, Math.floor((width - 2 * MARGIN) / LETTER)), MARGIN, 50, `400 14px ${SANS}`, colour('ink')), ...body);
  legend.setAttribute('transform', `translate(${MARGIN} ${height - LEGEND + 22})`);
  root.append(legend);
  root.prepend(make('style', {}, await fontsFor(root.textContent)));
  return { svg: new XMLSerializer().serializeToString(root), width, height };
}

/** A legend: signs that are drawn from (0, 0) to (20, 0), each with its words. */
export function legendOf(items: readonly [SVGElement, string][]): SVGElement {
  const group = make('g', {});
  let at = 0;
  for (const [sign, words] of items) {
    sign.setAttribute('transform', `translate(${at} 0)`);
    group.append(sign, text(words, at + 26, 4, `400 12.5px ${SANS}`, colour('soft-ink')));
    at += 40 + words.length * 6.6;
  }
  return group;
}
