import type { CallSummary } from '@fadenweg/api';
import type { CallFacts } from '@fadenweg/core/calls';
import { isoMicros } from '@fadenweg/core/units';

const ms = (time: number | null): number | null => (time === null ? null : time / 1000);

/** A call as a line of a list. */
export function summaryOf(facts: CallFacts, about: Pick<CallSummary, 'strand' | 'flow' | 'outcome' | 'headline'>): CallSummary {
  const { repeated } = facts;
  return {
    ...about,
    startedAt: isoMicros(facts.begunAt),
    state: facts.state,
    caller: facts.caller,
    called: facts.called,
    final: facts.final,
    status: facts.status,
    phrase: facts.phrase,
    postDialMs: ms(facts.postDial),
    ringingMs: ms(facts.ringing),
    setUpMs: ms(facts.setUp),
    talkingMs: ms(facts.talking),
    endedBy: facts.endedBy,
    repeated: repeated.invite + repeated.answer + repeated.other,
    transfers: facts.transfers.length,
  };
}
