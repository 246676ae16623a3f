import type { Strand, StrandLine } from '@fadenweg/api';
import { h } from 'vue';
import { framed, LEGEND, legendOf, TITLE } from './picture-frame.ts';
import { colour, cut, drawnAlone, make, MARGIN, SANS, text } from './picture-parts.ts';
import type { SvgPicture } from './picture-png.ts';
import TimeDots from './TimeDots.vue';
import { apartDots, fittingScale, timeLayout } from './time-layout.ts';
import TimePicture from './TimePicture.vue';

/** Height and width of one that is not zoomed. */
const HEIGHT = 900;
const WIDTH = 1200;
const NAMES = 26;

/** The strand in proportion to time with its lanes' names and a legend, in the fonts and colours of the page, as one SVG file. @param zoom as on the page */
export function timeSvg(strand: Strand, lines: StrandLine[], zoom: number): Promise<SvgPicture> {
  const layout = timeLayout(strand, lines, fittingScale(strand, HEIGHT) * zoom, WIDTH);
  const knots = new Set(strand.findings.map((finding) => finding.record.id));
  const isBad = (line: StrandLine): boolean => line.marks.includes('failing') || knots.has(line.id);
  const names = layout.lanes.map(({ name, x }) => {
    const one = text(cut(name, Math.floor(layout.laneWidth / 7)), MARGIN + x, TITLE + NAMES - 8, `700 12.5px ${SANS}`, colour('ink'));
    one.setAttribute('text-anchor', 'middle');
    return one;
  });
  const body = make('g', { transform: `translate(${MARGIN} ${TITLE + NAMES})` });
  const { width, height } = layout;
  const between = { from: 0, to: height };
  body.append(
    drawnAlone(
      h('svg', { width, height }, [
        h(TimePicture, { layout, ...between, left: 0 }),
        h(TimeDots, { dots: apartDots(layout.dots, null), width, ...between, selected: null, isBad }),
      ]),
    ),
  );
  const size = { width: layout.width + MARGIN * 2, height: TITLE + NAMES + layout.height + LEGEND };
  return framed(strand, size.width, size.height, [...names, body], legend());
}

function legend(): SVGElement {
  const bar = (fill: string): SVGElement => make('rect', { x: 6, y: -8, width: 9, height: 14, fill, opacity: 0.75 });
  const arrow = (dash: string): SVGElement => make('path', { d: 'M0 0h14m-1 -3.4l7 3.4l-7 3.4', fill: 'none', stroke: colour('soft-ink'), 'stroke-width': 1.3, 'stroke-dasharray': dash }); // prettier-ignore
  return legendOf([
    [make('circle', { cx: 10, cy: 0, r: 3, fill: colour('linen'), stroke: colour('indigo'), 'stroke-width': 1.6 }), 'a record'],
    [make('circle', { cx: 10, cy: 0, r: 4.5, fill: colour('madder') }), 'failing, or where a finding points to'],
    [bar(colour('indigo')), 'a step'],
    [bar(colour('madder')), 'one that failed or refused'],
    [make('rect', { x: 6, y: -8, width: 9, height: 14, fill: colour('weld-wash'), stroke: colour('weld'), 'stroke-dasharray': '2 2' }), 'waiting'],
    [arrow('none'), 'handed on'],
    [arrow('4 3'), 'back to the caller'],
  ]);
}
