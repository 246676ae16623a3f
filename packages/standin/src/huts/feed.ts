import { MS, SECOND, type Micros } from '../writing/times.ts';
import { answer, FEED_FAULTS, feedFaultOf } from './faults.ts';
import { WEATHER, weatherLine } from './lines.ts';
import type { Office } from './office.ts';

/** The weather of the stations, fetched every ten minutes. */
export function feed({ random, sink, faultRate }: Office, start: Micros, run: string): void {
  const open = sink.open({ flow: 'weather-feed', businessId: run, startedAt: start, story: null, outcome: 'done', identifiers: [{ kind: 'feed-run', value: run }], attributes: {}, cause: null }); // prettier-ignore
  const fault = feedFaultOf(random, faultRate);
  if (fault) answer(open, fault, FEED_FAULTS[fault]);
  let at = start;
  const say = (level: string, message: string, more = '', cause = false): void =>
    sink.emit(WEATHER, at, weatherLine(at, level, run, message, more), open, cause);
  say('info', 'feed begins', '', fault === 'stuck');
  if (fault !== 'stuck') {
    at += random.around(2 * SECOND) * (fault === 'overrun' ? 30 : 1);
    const stations = fault === 'too small' ? random.whole(8, 20) : random.whole(205, 214);
    say('info', 'stations read', ` stations=${stations}`, fault === 'too small' || fault === 'overrun');
    at += random.around(SECOND);
    if (fault === 'feed broken') say('error', `table of heights is missing, feed given up`, '', true);
    else say('info', 'feed ended', ` took=${Math.round((at - start) / MS)}ms`);
  }
  sink.close(open);
}
