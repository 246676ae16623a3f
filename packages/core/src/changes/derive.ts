import { shapeHash } from '../shapes/shape.ts';
import { isOfItself } from './words.ts';
import type { Change, ChangeKind, KnownState, SignSpan } from './types.ts';

const MINUTE = 60_000_000;
const HOUR = 60 * MINUTE;
/** What comes up in more than this share of the evidence, and so often, is routine. */
const ROUTINE = 0.25;
const FEWEST = 12;
/** The evidence is looked at in so many slots, of at most an hour. */
const SLOTS = 24;
/** A start so long after a stop is its other half. */
const RESTART = 60 * MINUTE;
/** Several lines tell of one start. */
const ONE_START = 30_000_000;
/** What has nothing to do with a component by its name is about something that runs if it says so. */
const THINGS =
  /\b(?:server|service|system|application|daemon|kernel|process|node|instance|host|database|broker|gateway|agent|cluster)\b|\.service\b/i;

/**
 * What changed, by all signs.
 *
 * @param spans in any order
 * @param known names of components and hosts
 * @param hours of the whole evidence
 * @returns in order of time
 */
export function changesOf(spans: readonly SignSpan[], known: { components: readonly string[]; hosts: readonly string[] }, hours: number): Change[] {
  const names = [...known.components, ...known.hosts].filter((name) => name.length > 2).map((name) => name.toLowerCase());
  const telling = withoutRoutine(spans, hours)
    .filter((span) => span.kind === 'version' || span.kind === 'setting' || isAboutSomething(span, names))
    .sort((a, b) => a.first - b.first || a.record.localeCompare(b.record));
  const byPlace = new Map<string, SignSpan[]>();
  for (const span of telling) {
    const place = `${span.component}\n${span.host}`;
    const own = byPlace.get(place);
    if (own) own.push(span);
    else byPlace.set(place, [span]);
  }
  return [...byPlace.values()].flatMap((own) => changesAt(own, names)).sort((a, b) => a.at - b.at || a.component.localeCompare(b.component));
}

/** What was last known at an instant of everything that signs report, by component. */
export function statesAt(changes: readonly Change[], at: number): KnownState[] {
  const last = new Map<string, KnownState>();
  const tell = ({ component, host, at: since, record }: Change, subject: string, value: string): void => {
    if (value !== '' && record !== null) last.set(`${component}\n${host}\n${subject}`, { component, host, subject, value, since, record });
  };
  for (const change of changes) {
    if (change.at > at) break;
    if (change.kind === 'setting') tell(change, change.subject, change.after);
    else if (!isOfItself(change)) continue;
    else if (change.kind === 'stop') tell(change, 'running', 'no');
    else if (change.kind === 'start' || change.kind === 'restart' || (change.kind === 'version' && change.away !== null))
      tell(change, 'running', 'yes');
    if (change.kind !== 'setting') tell(change, 'version', change.after);
  }
  return [...last.values()].sort(
    (a, b) => a.component.localeCompare(b.component) || a.subject.localeCompare(b.subject) || a.host.localeCompare(b.host),
  );
}

/** Signs without those that come up all the time, as a pool's threads that start and stop. */
function withoutRoutine(spans: readonly SignSpan[], hours: number): SignSpan[] {
  const slot = Math.min(HOUR, Math.max(MINUTE, (hours * HOUR) / SLOTS));
  const seen = new Map<string, { count: number; slots: Set<number> }>();
  const keyOf = (span: SignSpan): string => `${span.component}\n${span.kind}\n${shapeHash(span.text)}`;
  for (const span of spans) {
    const key = keyOf(span);
    const own = seen.get(key) ?? { count: 0, slots: new Set() };
    seen.set(key, own);
    own.count += span.count;
    // a stretch with several stands for the time between
    for (let at = Math.floor(span.first / slot); at <= Math.floor(span.last / slot) && own.slots.size < 10_000; at++) own.slots.add(at);
  }
  return spans.filter((span) => {
    const { count, slots } = seen.get(keyOf(span))!;
    return span.kind === 'version' || count < FEWEST || slots.size < ((hours * HOUR) / slot) * ROUTINE;
  });
}

/** A start or a stop of something: the component itself, another one that is named, or what is a server by its words. */
function isAboutSomething({ component, subject, text }: SignSpan, names: readonly string[]): boolean {
  if (subject !== '' || THINGS.test(text)) return true;
  const line = text.toLowerCase();
  return line.includes(component.toLowerCase()) || names.some((name) => namesIt(line, name));
}
const WORD = /[\p{L}\p{N}_-]/u;
/** Whether a line names it as a whole word; both in lower case. */
function namesIt(line: string, name: string): boolean {
  for (let at = line.indexOf(name); at >= 0; at = line.indexOf(name, at + 1))
    if (!WORD.test(line[at - 1] ?? ' ') && !WORD.test(line[at + name.length] ?? ' ')) return true;
  return false;
}

function changesAt(spans: readonly SignSpan[], names: readonly string[]): Change[] {
  const changes: Change[] = [];
  const values = new Map<string, { value: string; until: number }>();
  /** The value before, kept as the last known. */
  const replace = (subject: string, value: string, until: number): { value: string; until: number } | undefined => {
    const old = values.get(subject);
    values.set(subject, { value, until: Math.max(until, old?.value === value ? old.until : until) });
    return old;
  };
  let stopped: SignSpan | null = null;
  let started: { at: number; change: Change } | null = null;
  for (const one of spans) {
    const span = one.subject.toLowerCase() === one.component.toLowerCase() ? { ...one, subject: '' } : one;
    const push = (kind: ChangeKind, more: Partial<Change> = {}): Change => {
      const { first, component, host, subject, before, after, text, record } = span;
      const line = text.toLowerCase();
      const own = names.filter((name) => name !== component.toLowerCase() && namesIt(line, name));
      const change: Change = { kind, at: first, component, host, subject, before, after, away: null, text, record, names: own, ...more };
      changes.push(change);
      return change;
    };
    switch (span.kind) {
      case 'setting': {
        const old = replace(`setting ${span.subject}`, span.after, span.last);
        if (span.after !== '' && old?.value === span.after && span.before === '') break;
        push('setting', { before: span.before || (old?.value ?? '') });
        break;
      }
      case 'version': {
        const old = replace('version ', span.after, span.last);
        // side by side with the other one: several instances under one name
        if (old && old.value !== span.after && old.until < span.first) push('version', { before: old.value });
        break;
      }
      case 'stop':
        // several lines tell of one stop; the version is what it was
        if (stopped && span.first - stopped.last < RESTART) break;
        stopped = span;
        push('stop', { after: '' });
        break;
      case 'start': {
        const old = span.after === '' ? undefined : replace(`version ${span.subject}`, span.after, span.last);
        const other = old !== undefined && old.value !== span.after ? { kind: 'version' as const, before: old.value } : {};
        if (started && span.first - started.at < ONE_START) {
          // a further line of the same start adds what the first did not say
          if (started.change.after === '' && span.after !== '') Object.assign(started.change, { after: span.after, subject: span.subject, ...other });
          started.at = span.last;
          break;
        }
        const stop = stopped && span.first - stopped.first <= RESTART ? stopped : null;
        if (stop)
          changes.splice(
            changes.findLastIndex((one) => one.kind === 'stop'),
            1,
          );
        const change = push(stop ? 'restart' : 'start', { away: stop ? span.first - stop.first : null, ...other });
        started = { at: span.last, change };
        stopped = null;
        break;
      }
      default:
        push(span.kind);
    }
  }
  return changes;
}
