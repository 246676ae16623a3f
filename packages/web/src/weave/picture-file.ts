import type { Strand, StrandLine } from '@fadenweg/api';
import { h, render } from 'vue';
import { OUTCOME_PATHS, OUTCOME_WORDS } from '../glyphs/outcomes.ts';
import { dayAndClock } from '../time/format.ts';
import { fontsFor } from './fonts.ts';
import { LANE_LEFT, laneWidth } from './geometry.ts';
import { KNOT_OF, lanesOf, peerNames, ROW_HEIGHT, rowsOf, type Row } from './rows.ts';
import WeavePicture from './WeavePicture.vue';

const NS = 'http://www.w3.org/2000/svg';
const MARGIN = 20;
const HEAD = 66;
const LANES = 92;
const LEGEND = 56;
const TEXT_WIDTH = 1030;
/** Characters of a line that have room. */
const MOST_LETTERS = 120;
const MONO = "12.5px 'JetBrains Mono', monospace";
const SANS = "'Source Sans 3 Variable', 'Source Sans 3', sans-serif";
const STYLES = ['fill', 'stroke', 'stroke-width', 'stroke-dasharray', 'stroke-linecap', 'stroke-linejoin'];
/** Browsers draw no larger pictures. */
const LARGEST_SIDE = 16_000;
const LEAST_SCALE = 0.5;

export interface PictureOf {
  strand: Strand;
  lines: StrandLine[];
  folded: ReadonlySet<number>;
}

/** The whole weave with its lines and a legend, in the fonts and colours of the page, as one SVG file. */
export async function weaveSvg({ strand, lines, folded }: PictureOf): Promise<{ svg: string; width: number; height: number }> {
  const lanes = lanesOf(strand, lines);
  const rows = rowsOf(strand, lines, folded);
  const names = peerNames(lines);
  const weave = LANE_LEFT * 2 + (lanes.length - 1) * laneWidth(lanes.length);
  const width = MARGIN * 2 + weave + TEXT_WIDTH;
  const height = HEAD + LANES + rows.length * ROW_HEIGHT + LEGEND;
  const colour = (name: string): string => getComputedStyle(document.querySelector('.v-application') ?? document.body).getPropertyValue(`--${name}`).trim(); // prettier-ignore
  const root = make('svg', { xmlns: NS, width, height, viewBox: `0 0 ${width} ${height}` });
  root.append(make('rect', { width, height, fill: colour('linen') }));
  root.append(text(`${strand.businessId} · ${strand.flowLabel}, ${OUTCOME_WORDS[strand.outcome]}`, MARGIN, 28, `700 18px ${SANS}`, colour('ink')));
  const [first] = strand.findings;
  const about = first?.sentence ?? `${dayAndClock(strand.startedAt)} – ${dayAndClock(strand.endedAt)}`;
  root.append(text(cut(about, 175), MARGIN, 50, `400 14px ${SANS}`, colour('ink')));
  lanes.forEach((lane, i) => {
    const x = MARGIN + LANE_LEFT + i * laneWidth(lanes.length);
    const isKnot = first?.component === lane;
    const one = text(cut(names.get(lane) ?? lane, 16), 0, 0, `${isKnot ? 700 : 400} 12.5px ${SANS}`, isKnot ? outcomeColour(KNOT_OF[first.kind], colour) : colour('ink')); // prettier-ignore
    one.setAttribute('transform', `translate(${x + 4} ${HEAD + LANES - 6}) rotate(-58)`);
    root.append(one);
  });
  const body = make('g', { transform: `translate(${MARGIN} ${HEAD + LANES})` });
  body.append(picture(rows, lanes, strand));
  rows.forEach((row, i) => body.append(...lineOf(row, weave, i * ROW_HEIGHT + 15, colour)));
  root.append(body, legend(MARGIN, height - LEGEND + 22, colour));
  root.prepend(make('style', {}, await fontsFor(root.textContent)));
  return { svg: new XMLSerializer().serializeToString(root), width, height };
}

/** @throws where the weave is too long for a picture of points */
export async function weavePng(of: PictureOf): Promise<Blob> {
  const { svg, width, height } = await weaveSvg(of);
  const scale = Math.min(2, LARGEST_SIDE / height, LARGEST_SIDE / width);
  if (scale < LEAST_SCALE) throw new Error('the weave is too long for a PNG; take it as SVG, or fold steps first');
  const url = URL.createObjectURL(new Blob([svg], { type: 'image/svg+xml' }));
  try {
    const image = new Image();
    image.src = url;
    await image.decode();
    const canvas = Object.assign(document.createElement('canvas'), { width: Math.round(width * scale), height: Math.round(height * scale) });
    canvas.getContext('2d')!.drawImage(image, 0, 0, canvas.width, canvas.height);
    return await new Promise<Blob>((resolve, reject) =>
      canvas.toBlob((blob) => (blob ? resolve(blob) : reject(new Error('the browser could not draw it'))), 'image/png'),
    );
  } finally {
    URL.revokeObjectURL(url);
  }
}

function make(name: string, attributes: Record<string, string | number>, content = ''): SVGElement {
  const element = document.createElementNS(NS, name);
  for (const [key, value] of Object.entries(attributes)) if (key !== 'xmlns') element.setAttribute(key, String(value));
  element.textContent = content;
  return element;
}
const text = (content: string, x: number, y: number, font: string, fill: string): SVGElement =>
  make('text', { x, y, style: `font: ${font}; white-space: pre`, fill }, content);
const cut = (words: string, most: number): string => (words.length > most ? `${words.slice(0, most - 1)}…` : words);
const outcomeColour = (outcome: keyof typeof OUTCOME_PATHS, colour: (name: string) => string): string => {
  const probe = Object.assign(document.createElement('span'), { className: `outcome-${outcome}` });
  (document.querySelector('.v-application') ?? document.body).append(probe);
  const found = getComputedStyle(probe).color;
  probe.remove();
  return found || colour('ink');
};

/** The weave as the page draws it, with its colours written into it. */
function picture(rows: Row[], lanes: string[], strand: Strand): SVGElement {
  const place = document.createElement('div');
  place.style.cssText = 'position:absolute;left:-100000px;top:0';
  (document.querySelector('.v-application') ?? document.body).append(place);
  try {
    render(h(WeavePicture, { rows, lanes, steps: strand.steps, from: 0, to: rows.length }), place);
    const drawn = place.querySelector('svg')!;
    const copy = drawn.cloneNode(true) as SVGElement;
    const originals = drawn.querySelectorAll('*');
    copy.querySelectorAll('*').forEach((one, i) => {
      const style = getComputedStyle(originals[i]!);
      for (const name of STYLES) one.setAttribute(name, style.getPropertyValue(name));
      for (const name of one.getAttributeNames()) if (name === 'class' || name.startsWith('data-')) one.removeAttribute(name);
    });
    return copy;
  } finally {
    render(null, place);
    place.remove();
  }
}

function lineOf(row: Row, x: number, y: number, colour: (name: string) => string): SVGElement[] {
  if (row.kind === 'gap') return [text(row.text, x + 112, y, `600 12.5px ${SANS}`, colour(row.lock ? 'weld' : 'soft-ink'))];
  if (row.kind === 'leg') return [text(`leg ${row.leg}  ${cut(row.text, 90)}  ${row.when}`, x, y, `600 13px ${SANS}`, colour('ink'))];
  if (row.kind === 'change') return [text(`${row.time}  ${cut(row.text, 100)}`, x + 20, y, `600 13px ${SANS}`, colour('walnut'))];
  const time = text(row.time, x + 104, y, MONO, colour(row.full ? 'ink' : 'soft-ink'));
  time.setAttribute('text-anchor', 'end');
  const bad = row.line.marks.includes('failing');
  const more = row.more > 0 ? `  +${row.more} ${row.more === 1 ? 'line' : 'lines'}` : '';
  const words = text(cut(row.text, MOST_LETTERS - more.length) + more, x + 112, y, `${row.knot ? '700 ' : ''}${MONO}`, colour(bad ? 'madder' : row.line.level === 'warning' ? 'weld' : 'ink')); // prettier-ignore
  return [time, words];
}

function legend(x: number, y: number, colour: (name: string) => string): SVGElement {
  const group = make('g', { transform: `translate(${x} ${y})` });
  let at = 0;
  const item = (mark: SVGElement, words: string): void => {
    mark.setAttribute('transform', `translate(${at} 0)`);
    group.append(mark, text(words, at + 26, 4, `400 12.5px ${SANS}`, colour('soft-ink')));
    at += 40 + words.length * 6.6;
  };
  const line = (stroke: string, dash: string): SVGElement => make('path', { d: 'M0 0h20', stroke, 'stroke-width': 2.4, 'stroke-dasharray': dash, fill: 'none' }); // prettier-ignore
  item(make('circle', { cx: 10, cy: 0, r: 3.4, fill: colour('indigo') }), 'a record');
  item(make('circle', { cx: 10, cy: 0, r: 3.4, fill: colour('linen'), stroke: colour('indigo'), 'stroke-width': 1.6 }), 'carried over');
  item(make('circle', { cx: 10, cy: 0, r: 3.4, fill: colour('madder') }), 'failing');
  item(line(colour('indigo'), 'none'), 'the strand');
  item(line(colour('weld'), '4 3'), 'waiting');
  const shown = make('g', {});
  shown.append(make('path', { d: OUTCOME_PATHS.failed, transform: 'translate(1 -9)', fill: 'none', stroke: outcomeColour('failed', colour), 'stroke-width': 2.2, 'stroke-linecap': 'round' })); // prettier-ignore
  item(shown, 'a knot: where a finding points to');
  return group;
}
