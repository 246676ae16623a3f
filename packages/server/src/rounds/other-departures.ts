import type { Change, Departure } from '@fadenweg/api';
import { begunAnew } from '@fadenweg/core/changes';
import { isAmiss, type ClockSpan } from '@fadenweg/core/clocks';
import { durationWords } from '@fadenweg/core/findings';
import { isoMicros } from '@fadenweg/core/units';
import type { Changes } from '../changes/changes.ts';
import { spansOf, type ClockRepository, type ClockRow } from '../evidence/clock-rows.ts';
import { microsOf } from '../platform/http/inputs.ts';
import type { Window } from './window.ts';

const DAY = 86_400_000_000;
const BEFORE = 28 * DAY;
/** How grave a wrong clock is, and a machine or a program that began anew. */
const CLOCK = 2;
const GRAVE_ANEW = 3;
const MOST_CHANGES = 5000;

/** What departs and is no strand's: clocks that are off, machines and programs that began anew though they hardly ever do. */
export async function otherDepartures(clocks: ClockRepository, changes: Changes, window: Window, environment: string[]): Promise<Departure[]> {
  const [from, to] = [window.bounds[0]!, window.bounds.at(-1)!];
  const [rows, listed] = await Promise.all([
    clocks.speaking(),
    changes.list({ from: from - BEFORE, to, components: undefined, environment: [...environment] }, null, MOST_CHANGES),
  ]);
  const wrong = rows.flatMap((row) => {
    const spans = spansOf(row);
    // one that was right all the time says so by itself
    const within = isAmiss(spans) ? spans.filter((one) => (one.from < to || one.from === 0) && (one.to >= from || one.to === 0)) : [];
    return within.length === 0 ? [] : [wrongClock(row, within, window)];
  });
  return [...wrong, ...anewDepartures(listed.items, window)];
}

function wrongClock({ host, component, id }: ClockRow, spans: readonly ClockSpan[], window: Window): Departure {
  const worst = spans.reduce((a, b) => (Math.abs(b.ahead) > Math.abs(a.ahead) ? b : a));
  const [first, last] = [window.bounds[0]!, window.bounds.at(-1)!];
  const [from, to] = [Math.max(first, spans[0]!.from), spans.at(-1)!.to === 0 ? last : Math.min(last, spans.at(-1)!.to)];
  return {
    key: `clock ${id}`,
    what: 'clock',
    outcome: null,
    title: `The clock of ${host === '' ? component : host} is ${durationWords(Math.abs(worst.ahead))} ${worst.ahead > 0 ? 'ahead' : 'behind'}; times are put right by it`,
    flows: [],
    component: host === '' ? component : '',
    host,
    from: isoMicros(from),
    to: isoMicros(Math.max(from, to)),
    ongoing: true,
    count: 1,
    of: null,
    expected: null,
    weight: CLOCK,
    parties: [],
    hosts: [],
    change: null,
    finding: null,
    noted: null,
  };
}

/** Machines and programs that began anew, though they hardly ever did before. */
function anewDepartures(all: readonly Change[], { bounds }: Window): Departure[] {
  const changes = all.map((one) => ({ ...one, at: microsOf(one.at), change: one }));
  return begunAnew(changes, bounds[0]!, bounds.at(-1)!).map(({ told: { change: told }, all: own, places }): Departure => {
    const rest = own.filter((one) => one.change !== told).map((one) => one.words);
    return {
      key: `begun anew ${places.join(' ').slice(0, 400)}`,
      what: 'new',
      outcome: null,
      title: rest.length === 0 ? told.words : `${told.words}; then ${rest.join('; ')}`,
      flows: [],
      component: told.component,
      host: own.find((one) => one.host !== '')?.host ?? '',
      from: own[0]!.change.at,
      to: own.at(-1)!.change.at,
      ongoing: false,
      count: own.length,
      of: null,
      expected: null,
      weight: GRAVE_ANEW,
      parties: [],
      hosts: [],
      change: { id: told.id, kind: told.kind, at: told.at, component: told.component, host: told.host, words: told.words, record: told.record },
      finding: null,
      noted: null,
    };
  });
}
