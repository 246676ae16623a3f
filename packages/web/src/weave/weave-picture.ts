import type { Strand, StrandLine } from '@fadenweg/api';
import { h } from 'vue';
import { OUTCOME_PATHS } from '../glyphs/outcomes.ts';
import { LANE_LEFT, laneWidth } from './geometry.ts';
import { framed, LEGEND, legendOf, TITLE } from './picture-frame.ts';
import { colour, cut, drawnAlone, make, MARGIN, MONO, outcomeColour, SANS, text } from './picture-parts.ts';
import type { SvgPicture } from './picture-png.ts';
import { KNOT_OF, lanesOf, peerNames, ROW_HEIGHT, rowsOf, type Row } from './rows.ts';
import WeavePicture from './WeavePicture.vue';

const LANES = 92;
const TEXT_WIDTH = 1030;
/** Characters of a line that have room. */
const MOST_LETTERS = 120;

/** The whole weave with its lines and a legend, in the fonts and colours of the page, as one SVG file. */
export function weaveSvg(strand: Strand, lines: StrandLine[], folded: ReadonlySet<number>): Promise<SvgPicture> {
  const lanes = lanesOf(strand, lines);
  const rows = rowsOf(strand, lines, folded);
  const names = peerNames(lines);
  const weave = LANE_LEFT * 2 + (lanes.length - 1) * laneWidth(lanes.length);
  const [first] = strand.findings;
  const heads = lanes.map((lane, i) => {
    const x = MARGIN + LANE_LEFT + i * laneWidth(lanes.length);
    const isKnot = first?.component === lane;
    const one = text(cut(names.get(lane) ?? lane, 16), 0, 0, `${isKnot ? 700 : 400} 12.5px ${SANS}`, isKnot ? outcomeColour(KNOT_OF[first.kind]) : colour('ink')); // prettier-ignore
    one.setAttribute('transform', `translate(${x + 4} ${TITLE + LANES - 6}) rotate(-58)`);
    return one;
  });
  const body = make('g', { transform: `translate(${MARGIN} ${TITLE + LANES})` });
  body.append(drawnAlone(h(WeavePicture, { rows, lanes, steps: strand.steps, from: 0, to: rows.length })));
  rows.forEach((row, i) => body.append(...lineOf(row, weave, i * ROW_HEIGHT + 15)));
  const height = TITLE + LANES + rows.length * ROW_HEIGHT + LEGEND;
  return framed(strand, MARGIN * 2 + weave + TEXT_WIDTH, height, [...heads, body], legend());
}

function lineOf(row: Row, x: number, y: number): SVGElement[] {
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

function legend(): SVGElement {
  const line = (stroke: string, dash: string): SVGElement => make('path', { d: 'M0 0h20', stroke, 'stroke-width': 2.4, 'stroke-dasharray': dash, fill: 'none' }); // prettier-ignore
  const knot = make('g', {});
  knot.append(make('path', { d: OUTCOME_PATHS.failed, transform: 'translate(1 -9)', fill: 'none', stroke: outcomeColour('failed'), 'stroke-width': 2.2, 'stroke-linecap': 'round' })); // prettier-ignore
  return legendOf([
    [make('circle', { cx: 10, cy: 0, r: 3.4, fill: colour('indigo') }), 'a record'],
    [make('circle', { cx: 10, cy: 0, r: 3.4, fill: colour('linen'), stroke: colour('indigo'), 'stroke-width': 1.6 }), 'carried over'],
    [make('circle', { cx: 10, cy: 0, r: 3.4, fill: colour('madder') }), 'failing'],
    [line(colour('indigo'), 'none'), 'the strand'],
    [line(colour('weld'), '4 3'), 'waiting'],
    [knot, 'a knot: where a finding points to'],
  ]);
}
