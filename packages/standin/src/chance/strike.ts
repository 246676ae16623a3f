import type { Random } from '../writing/random.ts';
import { MS, type Micros } from '../writing/times.ts';
import { SLOW_TIMES, type Effect } from './faults.ts';
import { CODES, REASONS, stack, type Speaker, type Went } from './speaker.ts';
import type { Step } from './types.ts';
import { inventedWord, type Act } from './words.ts';

/** What a fault does to a step before its work is done: until when that takes, and how the step went where it is over with it. */
export function beforeWork(random: Random, effect: Effect | null, speaker: Speaker, step: Step, at: Micros): { now: Micros; went?: Went } {
  const { running } = speaker;
  const { component } = step;
  const long = Math.round(Math.max(step.median, 20 * MS) * random.whole(SLOW_TIMES.least, SLOW_TIMES.most) + 800 * MS);
  const caused = (): void => void (running.cause.length === 0 && running.cause.push(component));
  const fails = (
    status: number,
    text: string,
    more: readonly string[] = [],
    act: Act = 'fail',
    level = 3,
    fields = {},
  ): { now: Micros; went: Went } => {
    caused();
    const now = at + random.whole(2, 30) * MS;
    speaker.says(act, now, [step.task, text], 'names', { level, cause: true, more, fields });
    return { now, went: { end: now, failed: status, over: false } };
  };
  switch (effect) {
    case 'raise':
      return fails(500, `${random.pick(REASONS)}`, stack(random, component, null));
    case 'raise-nested':
      return fails(500, 'operation not completed', stack(random, component, random.pick(REASONS)));
    case 'malformed':
      running.names.delete(running.flow.kind);
      return fails(400, 'unexpected character at 17', [], 'refuse', 2);
    case 'sql-error':
      return fails(500, 'SQLSTATE 23505 duplicate key value violates unique constraint "one_only"', [], 'fail', 3, { sqlstate: '23505' });
    case 'refuse':
      return fails(422, random.pick(CODES), [], 'refuse', 2);
    case 'forbidden':
      return fails(random.pick([401, 403]), '403 forbidden', [], 'refuse', 2);
    case 'disk-full':
      return fails(500, 'No space left on device (errno 28)');
    case 'certificate':
      return fails(502, 'certificate has expired');
    case 'refuse-quietly':
      return fails(200, random.pick(CODES), [], 'refuse', 1, { result: random.pick(CODES) });
    case 'cut':
      caused();
      return { now: at, went: { end: at, failed: null, over: true } };
    case 'lock':
    case 'pool':
      caused();
      speaker.says('wait', at + random.whole(1, 5) * MS, [inventedWord(random, 2)], 'names', { level: effect === 'lock' ? 1 : 2, cause: true });
      return { now: at + long };
    case 'slow':
    case 'slow-quietly':
    case 'overrun':
      caused();
      return { now: at + (effect === 'overrun' ? long * 4 : long) };
    default:
      return { now: at };
  }
}
