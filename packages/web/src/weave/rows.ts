import type { Change, Finding, Outcome, Strand, StrandLeg, StrandLine } from '@fadenweg/api';
import { durationWords } from '@fadenweg/core/findings';
import { clock, micros } from '../time/format.ts';

/** One row of the strand's page; all rows are equally high, so the place of each is known without measuring. */
export type Row =
  | {
      kind: 'line';
      line: StrandLine;
      index: number;
      time: string;
      full: boolean;
      text: string;
      more: number;
      /** How what stands here went, where a finding points to it. */
      knot: Outcome | null;
      lane: string;
      peer: string | null;
      folded: number;
    }
  | { kind: 'gap'; id: string; text: string; lane: string | null; lock: boolean }
  | { kind: 'leg'; id: string; leg: number; text: string; when: string; outcome: Outcome; lane: null }
  | { kind: 'change'; id: string; time: string; text: string; component: string; lane: null };

export const ROW_HEIGHT = 21;
/** A knot is drawn as the strand would be that went so. */
export const KNOT_OF: Record<Finding['kind'], Outcome> = {
  'failed-at': 'failed',
  'stopped-before': 'stalled',
  'slowed-by': 'slow',
  'went-astray': 'odd',
  doubled: 'doubled',
  refused: 'refused',
  'odd-volume': 'odd',
  'odd-result': 'odd',
};

/** The lanes: components in the order in which the strand reached them, and the far ends of calls beside the component that speaks with them. */
export function lanesOf(strand: Strand, lines: readonly StrandLine[]): string[] {
  const lanes: string[] = [];
  const begun = [...strand.steps].sort((a, b) => (a.startedAt < b.startedAt ? -1 : 1));
  for (const step of begun) if (!lanes.includes(step.component)) lanes.push(step.component);
  for (const line of lines) if (!lanes.includes(line.component)) lanes.push(line.component);
  const peers = [...new Set(lines.map(peerOf).filter((peer): peer is string => peer !== null))];
  for (const peer of peers) {
    const speaker = lines.find((line) => peerOf(line) === peer)!.component;
    const at = lanes.indexOf(speaker);
    // the first far end stands before the component, the others behind it: a call passes through
    lanes.splice(peers.indexOf(peer) === 0 ? at : at + 1, 0, peer);
  }
  return lanes;
}

/** What to call a far end: the number that it calls from or is called by, where an INVITE tells; else its address. */
export function peerNames(lines: readonly StrandLine[]): Map<string, string> {
  const names = new Map<string, string>();
  for (const line of lines) {
    const peer = peerOf(line);
    if (peer === null) continue;
    const { method, direction, from, uri } = line.attributes;
    const number = method === 'INVITE' ? /sips?:\+?(\w+)@/.exec(String(direction === 'in' ? from : uri))?.[1] : undefined;
    if (number !== undefined && (names.get(peer) ?? peer) === peer) names.set(peer, `…${number.slice(-8)}`);
    else if (!names.has(peer)) names.set(peer, peer);
  }
  return names;
}

/** The far end that a message came from or went to, named as the message names it. */
export function peerOf(line: StrandLine): string | null {
  const { direction, peer } = line.attributes;
  if ((direction !== 'in' && direction !== 'out') || typeof peer !== 'string') return null;
  return peer.replace(/:\d+$/, '');
}

/**
 * Rows from records: steps that are folded show their first record alone, unless a knot is in them;
 * long silences and changes stand as rows of their own. Where there are several legs, each is a section with a head.
 */
export function rowsOf(strand: Strand, lines: readonly StrandLine[], folded: ReadonlySet<number>, changes: readonly Change[] = []): Row[] {
  const rows: Row[] = [];
  // each stands before the first record behind it
  const waiting = [...changes].sort((a, b) => micros(a.at) - micros(b.at));
  const knots = new Map(strand.findings.map((finding) => [finding.record.id, KNOT_OF[finding.kind]]).reverse() as [string, Outcome][]);
  const silences = new Map(strand.silences.map((silence) => [silence.before, silence]));
  let second = '';
  let before = NaN;
  let open: { step: number; row: Extract<Row, { kind: 'line' }> } | null = null;
  const several = strand.legs.length > 1;
  const inSections = several ? [...lines].sort((a, b) => (a.leg ?? 1) - (b.leg ?? 1)) : lines;
  let leg = 0;
  inSections.forEach((line, index) => {
    const own = several && line.leg !== leg ? strand.legs.find((one) => one.id === line.leg) : undefined;
    if (own) {
      leg = own.id;
      rows.push(legRow(own, strand.legs[0]!));
      second = '';
      before = NaN;
      open = null;
    }
    for (let next = waiting[0]; next && micros(next.at) <= micros(line.at); next = waiting[0]) {
      rows.push({ kind: 'change', id: `change-${next.id}`, time: clock(next.at, 3), text: next.words, component: next.component, lane: null });
      waiting.shift();
      open = null;
      second = '';
    }
    const silence = silences.get(line.id);
    if (silence) {
      rows.push({
        kind: 'gap',
        id: `gap-${line.id}`,
        text: silenceWords(silence.ms, silence.kind, silence.component),
        lane: inSections[index - 1]?.component ?? null,
        lock: silence.kind === 'lock-wait',
      });
      open = null;
    }
    const knot = knots.get(line.id) ?? null;
    if (folded.has(line.step) && open?.step === line.step && !knot) {
      open.row.folded++;
      before = micros(line.at);
      return;
    }
    const at = micros(line.at);
    const now = clock(line.at, 0);
    const coarse = line.marks.includes('coarse');
    const full = coarse || now !== second || knot !== null || line.marks.includes('failing');
    const breakAt = line.message.indexOf('\n');
    const row: Extract<Row, { kind: 'line' }> = {
      kind: 'line',
      line,
      index,
      full,
      time: coarse ? now : full || Number.isNaN(before) ? clock(line.at, 3) : relative(at - before),
      knot,
      lane: line.component,
      peer: peerOf(line),
      folded: 0,
      text: breakAt < 0 ? line.message : line.message.slice(0, breakAt),
      more: breakAt < 0 ? 0 : line.message.split('\n').length - 1,
    };
    rows.push(row);
    open = { step: line.step, row };
    if (coarse) return; // the next one is not told from a time that is not known so closely
    second = now;
    before = at;
  });
  return rows;
}

function legRow(leg: StrandLeg, first: StrandLeg): Extract<Row, { kind: 'leg' }> {
  const after = micros(leg.startedAt) - micros(first.endedAt);
  const took = durationWords(micros(leg.endedAt) - micros(leg.startedAt));
  const when = leg.id === 1 ? took : after >= 0 ? `${durationWords(after)} later, ${took}` : `beside it, ${took}`;
  return { kind: 'leg', id: `leg-${leg.id}`, leg: leg.id, text: leg.entry, when, outcome: leg.outcome, lane: null };
}

const relative = (micro: number): string => (micro < 0 ? '-' : '+') + (Math.abs(micro) / 1_000_000).toFixed(3);

function silenceWords(ms: number, kind: string, component: string | null): string {
  const long = durationWords(ms * 1000);
  switch (kind) {
    case 'lock-wait':
      return `${long} waiting for a lock in ${component ?? 'the database'}`;
    case 'queue':
      return `${long} in a queue of ${component ?? 'the broker'}`;
    case 'gap':
      return `${long} in which nothing worked on it`;
    case 'waiting':
      return `${long}, ${component ?? ''} waiting`;
    default:
      return `${long} in ${component ?? 'between'}`;
  }
}
