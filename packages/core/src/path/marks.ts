import { LEVELS } from '../units.ts';
import type { Draft } from '../reading/types.ts';
import { shapeHash } from '../shapes/shape.ts';

/** What a record means for the strand it belongs to; bits that can be combined. */
export const MARK = {
  failing: 1,
  refusing: 2,
  done: 4,
  entry: 8,
  sends: 16,
  receives: 32,
  waits: 64,
  ends: 128,
  harmless: 256,
  /** Its time is told in whole seconds: it may be anywhere in its second. */
  coarse: 512,
  /** It stands at the begin of what took as long as it states, not at its end. */
  begins: 1024,
} as const;
export type Meaning = 'done' | 'ends' | 'failed' | 'refused' | 'entry' | 'harmless';
const OF_MEANING: Record<Meaning, number> = {
  done: MARK.done,
  ends: MARK.ends,
  failed: MARK.failing,
  refused: MARK.refusing,
  entry: MARK.entry,
  harmless: MARK.harmless,
};

/** A declared rule: records of a component whose message holds fixed words (no numbers, no values) mean something. */
export interface MeaningRule {
  /** Null for every component. */
  component: string | null;
  contains: string;
  means: Meaning;
}

const SENDS = /\b(?:enqueued?|published?|handed? to|submitted|dispatching|sends?|sent)\b/i;
const RECEIVES = /\b(?:delivered|dequeued?|consumed?|received?|picked up|accepted)\b/i;
const WAITS = /\bwaiting for \w*lock\b|\bwaits? for \w*lock\b/i;
/** SIP answers that turn a call away without anything being broken (RFC 3261, section 21): busy, gone, declined, not there. */
const TURNED_AWAY = new Set([480, 486, 600, 603]);
const NO_FAILURE = new Set([401, 407, 487]);

/** Marks records; the part that depends on the message's fixed words is worked out once for each shape. */
export class Marker {
  /** By component, then by level, then by shape. */
  private readonly known = new Map<string, Map<number, number>[]>();
  constructor(private readonly rules: readonly MeaningRule[]) {}

  /** @param shape the hash of the draft's message, from `shapeHash` */
  marks(draft: Draft, component: string, shape = shapeHash(draft.message)): number {
    let byLevel = this.known.get(component);
    if (!byLevel) this.known.set(component, (byLevel = LEVELS.map(() => new Map<number, number>())));
    const byShape = byLevel[draft.level]!;
    let marks = byShape.get(shape);
    if (marks === undefined) {
      marks = this.ofText(draft, component);
      if (byShape.size < 20_000) byShape.set(shape, marks);
    }
    return draft.fields.cseq !== undefined && draft.fields['call-id'] !== undefined ? (marks & ~(MARK.sends | MARK.receives)) | ofSip(draft) : marks;
  }

  private ofText(draft: Draft, component: string): number {
    const breakAt = draft.message.indexOf('\n');
    const line = breakAt < 0 ? draft.message : draft.message.slice(0, breakAt);
    let marks = 0;
    if (draft.level >= 5) marks |= MARK.failing;
    if (SENDS.test(line)) marks |= MARK.sends;
    else if (RECEIVES.test(line)) marks |= MARK.receives;
    if (WAITS.test(line)) marks |= MARK.waits;
    for (const rule of this.rules) {
      if (rule.component !== null && rule.component !== component) continue;
      if (!line.includes(rule.contains)) continue;
      marks |= OF_MEANING[rule.means];
      if (rule.means === 'harmless' || rule.means === 'refused') marks &= ~MARK.failing;
    }
    return marks;
  }
}

function ofSip(draft: Draft): number {
  const { method, status } = draft.fields;
  let marks = 0;
  if (method === 'INVITE' && !/;tag=/.test(String(draft.fields.to ?? ''))) marks |= MARK.entry;
  if (method === 'BYE' || method === 'CANCEL') marks |= MARK.ends;
  const code = Number(status ?? 0);
  if (code >= 400 && !NO_FAILURE.has(code)) marks |= TURNED_AWAY.has(code) ? MARK.refusing : MARK.failing;
  return marks;
}
