import type { CallFacts } from '@fadenweg/core/calls';
import type { CopyRows } from '../database/copy-rows.ts';
import { layout, type RowOf } from '../database/layout.ts';

/** What is kept of a strand that is a call. Times in microseconds; `final` is the called one's name where nobody else was reached. */
export const CALL = layout({
  founder: 'big',
  environment: 'text',
  begun_at: 'big',
  caller: 'text',
  called: 'text',
  final: 'text',
  state: 'text',
  status: 'int?',
  post_dial: 'big?',
  set_up: 'big?',
  talking: 'big?',
  /** CallFacts as JSON. */
  facts: 'text',
});
export type CallRow = RowOf<typeof CALL>;

const LONGEST_NAME = 200;
const whole = (time: number | null): number | null => (time === null ? null : Math.round(time));

export function writeCall(rows: CopyRows, founder: number, environment: string, facts: CallFacts): void {
  const name = (text: string): string => text.replaceAll('\0', '').slice(0, LONGEST_NAME);
  CALL.write(rows, {
    founder,
    environment,
    begun_at: facts.begunAt,
    caller: name(facts.caller.name),
    called: name(facts.called.name),
    final: name(facts.final || facts.called.name),
    state: facts.state,
    // a status of more digits than there are is none that a column holds
    status: facts.status !== null && facts.status <= 999 ? facts.status : null,
    post_dial: whole(facts.postDial),
    set_up: whole(facts.setUp),
    talking: whole(facts.talking),
    facts: JSON.stringify(facts),
  });
}
