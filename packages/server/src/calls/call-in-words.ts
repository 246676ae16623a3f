import type { Call, CallSummary, LadderArrow } from '@fadenweg/api';
import { amissOf, isPrivate, ladderOf, refusals, type CallFacts, type TracedMessage } from '@fadenweg/core/calls';
import { Q850, SIP } from '@fadenweg/core/explain';
import { durationWords } from '@fadenweg/core/findings';
import { isoMicros, type Microseconds } from '@fadenweg/core/units';
import { recordKey } from '../evidence/record-key.ts';
import type { RecordRow } from '../evidence/record-layout.ts';
import type { Usually } from './call-rows.ts';

const ms = (time: number | null): number | null => (time === null ? null : time / 1000);
const iso = (at: Microseconds | null): string | null => (at === null ? null : isoMicros(at));

/** Messages in order of time as they stand in records: which way they went, as far as the trace tells. */
export function tracedOf(
  messages: readonly { record: number; at: number; place: string; message: TracedMessage['message'] }[],
  rows: readonly RecordRow[],
  names: { component(id: number): string; host(id: number): string },
): TracedMessage[] {
  return messages.map((one) => {
    const row = rows[one.record]!;
    const { direction, peer } = row.attributes ?? {};
    return {
      ...one,
      direction: direction === 'in' || direction === 'out' ? direction : 'unknown',
      peer: typeof peer === 'string' ? peer : null,
      component: names.component(row.component_id),
      host: names.host(row.host_id),
    };
  });
}

/** A time far over the usual: beyond what one in twenty exceeds, and twice the median. */
const isLong = (time: number | null, usual: Usually | null): boolean =>
  time !== null && usual !== null && time > usual.most && time > 2 * usual.middle;

/** All there is to say of a call. @param rows its records in the order of the facts' indexes */
export function callInWords(
  facts: CallFacts,
  summary: CallSummary,
  traced: readonly TracedMessage[],
  rows: readonly RecordRow[],
  usual: { postDial: Usually | null; setUp: Usually | null },
  { ties, cut }: Pick<Call, 'ties' | 'cut'>,
): Call {
  const key = (index: number): string => recordKey(rows[index]!);
  const { parties, messages, callIds } = ladderOf(traced);
  const confirmed = facts.talking !== null && facts.endedAt !== null ? facts.endedAt - facts.talking : facts.state === 'talking' ? facts.begunAt + (facts.setUp ?? 0) : null; // prettier-ignore
  const first = facts.postDial === null ? null : facts.begunAt + facts.postDial;
  const final = facts.setUp === null ? null : facts.begunAt + facts.setUp;
  const usualAt = (at: number): number | null => {
    if (at === first && isLong(facts.postDial, usual.postDial)) return usual.postDial!.middle / 1000;
    return at === final && isLong(facts.setUp, usual.setUp) ? usual.setUp!.middle / 1000 : null;
  };
  return {
    ...summary,
    endedAt: iso(facts.endedAt),
    reason: facts.reason && { ...facts.reason, meaning: meaningOfReason(facts.reason) },
    offered: facts.offered,
    agreed: facts.agreed,
    media: facts.media.map(({ side, media }) => ({ side, ...media, private: isPrivate(media.address) })),
    challenges: facts.challenges,
    holds: facts.holds,
    handedOn: facts.transfers.map(({ record, at, ...one }) => ({ ...one, record: key(record), at: isoMicros(at) })),
    amiss: amissOf(facts).map(({ trouble, record, words, time }) => ({ trouble, record: key(record), text: time === null ? words.trimEnd() : `${words}${durationWords(time)}.` })), // prettier-ignore
    lanes: parties,
    arrows: messages.map((one, i): LadderArrow => {
      const usually = one.method === 'INVITE' ? usualAt(one.at) : null;
      return {
        record: key(one.records[0]!),
        arrived: one.records[1] === undefined ? null : key(one.records[1]),
        at: isoMicros(one.at),
        afterMs: i === 0 ? 0 : (one.at - messages[i - 1]!.at) / 1000,
        underMs: ms(one.under),
        from: one.from,
        to: one.to,
        label: one.label,
        method: one.method,
        number: one.number,
        status: one.status,
        dialog: one.dialog,
        again: one.again,
        media: one.media,
        usualMs: usually,
      };
    }),
    callIds,
    ties,
    unsound: unsoundOf(traced, key),
    talk: confirmed === null ? null : { from: isoMicros(confirmed), to: iso(facts.endedAt) },
    cut,
  };
}

const MOST_UNSOUND = 5;
function unsoundOf(traced: readonly TracedMessage[], key: (index: number) => string): Call['unsound'] {
  const found: Call['unsound'] = [];
  for (const { record, message } of traced) {
    if (found.length >= MOST_UNSOUND) break;
    const why = refusals(message);
    if (why.length > 0) found.push({ record: key(record), text: `${message.method ?? message.status}: ${why.join('; ')}` });
  }
  return found;
}

/** What a code of SIP or Q.850 means; '' for what is not known. */
function meaningOfReason({ protocol, code }: { protocol: string; code: number | null }): string {
  const table = /^sip$/i.test(protocol) ? SIP : /^q\.850$/i.test(protocol) ? Q850 : null;
  return table?.get(String(code))?.means ?? '';
}
