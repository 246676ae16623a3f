import type { Call, CallCounts, CallPage, CallStateName, Outcome } from '@fadenweg/api';
import { callFacts, messagesOf, numberOf, type CallFacts } from '@fadenweg/core/calls';
import type { IdentifierRepository } from '../evidence/identifiers.ts';
import { strandId } from '../evidence/identifiers.ts';
import type { Names } from '../evidence/names.ts';
import type { StrandService } from '../strands/strand-service.ts';
import type { StrandRow } from '../weaving/strand-rows.ts';
import { summaryOf } from '../strands/call-summary.ts';
import { callInWords, tracedOf } from './call-in-words.ts';
import type { CallCursor, CallFilter, CallRepository, CallSort } from './call-rows.ts';

/** Calls: the list, and one with its messages laid out between those who sent them. */
export class CallService {
  constructor(
    private readonly rows: CallRepository,
    private readonly strands: StrandService,
    private readonly identifiers: IdentifierRepository,
    private readonly names: Names,
  ) {}

  async list(filter: CallFilter, sort: CallSort, after: CallCursor | null, limit: number): Promise<CallPage> {
    const rows = await this.rows.list(filter, sort, after, limit + 1);
    const shown = rows.slice(0, limit);
    const named = await this.identifiers.named(shown.map((row) => row.founder));
    const last = shown.at(-1);
    return {
      items: shown.map((row) => {
        const own = named.get(row.founder);
        const strand = strandId(own?.kind ?? '', own?.scope ?? '', row.value);
        return summaryOf(JSON.parse(row.facts) as CallFacts, { strand, flow: row.flow, outcome: row.outcome as Outcome, headline: row.headline });
      }),
      next: rows.length > limit && last ? `${last.place}~${last.founder}` : null,
    };
  }

  async counts(filter: CallFilter): Promise<CallCounts> {
    const rows = await this.rows.counts(filter);
    const states: Partial<Record<CallStateName, number>> = {};
    for (const { state, count } of rows) states[state as CallStateName] = Number(count);
    return { calls: rows.reduce((sum, { count }) => sum + Number(count), 0), states };
  }

  /** null for a strand that is no call. */
  async of(row: StrandRow): Promise<Call | null> {
    const kept = await this.rows.one(row.founder);
    if (!kept) return null;
    const { rows, records } = await this.strands.followed(row);
    // as they stand in the trace: what judging reads of a long one is cut in its middle
    const messages = messagesOf(records.map((record, i) => ({ ...record, message: rows[i]!.message })));
    const facts = callFacts(messages);
    if (!facts) return null;
    const [usual, named, ties] = await Promise.all([
      row.flow === null ? { postDial: null, setUp: null } : this.rows.usual(row.flow, row.started_at),
      this.identifiers.named([row.founder]),
      this.rows.ties(row.founder),
    ]);
    const own = named.get(row.founder);
    const strand = strandId(own?.kind ?? '', own?.scope ?? '', row.value);
    const summary = summaryOf(facts, { strand, flow: row.flow, outcome: row.outcome as Outcome, headline: row.headline });
    return callInWords(facts, summary, tracedOf(messages, rows, this.names), rows, usual, { ties, cut: rows.length < row.records });
  }
}

/** A number in any notation, or a name, as it is kept. */
export const keptName = (text: string): string => {
  const bare = text.trim().replace(/^<|>$/g, '').replace(/^(?:sips?|tel):/i, '').replace(/[@;?].*$/, ''); // prettier-ignore
  return numberOf(bare) ?? bare;
};
