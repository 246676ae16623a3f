import type { OpenTruth } from '../writing/sink.ts';
import { HOUR, MINUTE, MS, SECOND, type Micros } from '../writing/times.ts';
import { answer, FAULTS, faultOf, UNKNOWN_HUT, type Fault } from './faults.ts';
import {
  ARCHIVE,
  archiveLine,
  LEDGER,
  ledgerLine,
  LOCKS,
  locksLine,
  NOTIFIER,
  notifierLine,
  PAY,
  RESERVE,
  reserveLine,
  restarted,
  WEB,
  webLine,
} from './lines.ts';
import type { Asked, Instance, Office } from './office.ts';

const HUTS = ['Finsterkopf', 'Grauwand', 'Eisenjoch', 'Murmelboden', 'Windscharte'];

/** A booking on its way. */
interface Booking {
  id: string;
  open: OpenTruth;
  request: string;
  hut: string;
  instance: Instance;
  thread: string;
  fault: Fault | null;
  /** Paid by transfer: the bank answers minutes later. */
  transfer: boolean;
  /** When it was, once it is. */
  confirmed: Micros[];
}

/**
 * A booking: asked for on the web, beds held, paid, confirmed; then at the same time the key, the entry in the ledger and the letter.
 *
 * Hours later the hut calls back that its guests have come, and somebody may ask how it stands.
 *
 * @param through the share of the time that has passed, 0 to 1
 * @param end when the day of this world ends
 * @returns what comes of it hours later, the soonest first, null if nothing does
 */
export function booking(office: Office, start: Micros, id: string, through: number, end: Micros): Asked | null {
  const { random, sink } = office;
  const hut = random.pick(HUTS);
  const instance = random.pick(['a', 'b'] as const);
  const fault = faultOf(random, office.faultRate, through, hut, instance, end - start);
  const plain = id.replace('-', '');
  const attempts = { pay: fault === 'tried again' ? 2 : fault === 'given up' ? 3 : 1 };
  const open = sink.open({
    flow: 'booking',
    businessId: plain,
    startedAt: start,
    story: null,
    outcome: 'done',
    identifiers: [{ kind: 'booking', value: plain }],
    attributes: { hut },
    cause: null,
    ...(fault === 'doubled' || fault === 'delivered again' ? {} : { course: { legs: 1, attempts, parallel: [] } }),
  });
  if (fault) answer(open, fault, FAULTS[fault]);
  // waiting for the bank twice may well be slow
  if (fault === 'tried again') open.truth.alsoRight = ['done', 'slow'];
  const guests = random.whole(1, 6);
  const request = office.request();
  const waits = fault === 'queue at the door' ? SECOND * (3 + 4 * random.next()) : 0;
  const reads = fault === 'slow client' ? SECOND * (4 + 5 * random.next()) : random.around(2 * MS);
  if (fault === 'slow client' || fault === 'queue at the door') open.truth.lostMs = Math.round((fault === 'slow client' ? reads : waits) / MS);
  const began = start + reads + waits;
  const one: Booking = {
    id,
    open,
    request,
    hut,
    instance,
    thread: office.thread(instance, began, began + 14 * SECOND),
    fault,
    transfer: fault === 'transfer never comes' || ((fault === null || fault === 'tried again') && random.chance(0.12)),
    confirmed: [],
  };
  sink.emit(WEB, start, webLine(start, 'info', request, `booking ${id} asked for`, { hut, guests }), open);
  let at = start + reads;
  sink.emit(WEB, at, webLine(at, 'info', request, 'body read', { bytes: random.whole(300, 900) }), open, fault === 'slow client');
  at += waits + random.around(4 * MS);
  at = hold(office, one, at, guests);
  const went = at < 0 ? null : settle(office, one, at);
  const answered = went ?? Math.abs(at) + random.around(4 * MS);
  const code = FAULTS[fault ?? 'harmless'].outcome === 'failed' && fault !== 'branch failed' ? 500 : 200;
  if (fault !== 'bank silent' && fault !== 'restart')
    sink.emit(WEB, answered, webLine(answered, code === 500 ? 'error' : 'info', request, `answered with ${code}`), open);
  const asked = (fault === null || fault === 'harmless' || fault === 'tried again') && random.chance(0.3);
  const later: Asked[] = [];
  if (asked) later.push({ at: answered + HOUR * (0.5 + 3 * random.next()), what: 'looked up', id, open, then: null });
  // whoever was confirmed comes
  if (one.confirmed.length > 0 && fault !== 'never called back')
    later.push({ at: answered + HOUR * (1 + 2 * random.next()), what: 'called back', id, open, then: null });
  const [first, second] = later.sort((a, b) => a.at - b.at);
  if (!first) sink.close(open);
  return first ? { ...first, then: second ?? null } : null;
}

const saying =
  ({ sink }: Office, one: Booking) =>
  (at: Micros, level: string, logger: string, message: string, cause = false): void =>
    sink.emit(RESERVE[one.instance], at, reserveLine(at, level, one.thread, logger, message), one.open, cause);

/** Beds are held. Returns when, below nothing if the booking ended here. */
function hold(office: Office, one: Booking, from: Micros, guests: number): Micros {
  const { random } = office;
  const say = saying(office, one);
  let at = from;
  say(at, 'INFO', 'core.Door', `${one.request} taken up`, one.fault === 'queue at the door');
  if (one.fault === 'no connection') {
    at += 3 * SECOND + random.around(2 * MS);
    say(at, 'ERROR', 'core.Beds', `${one.request} no connection to the store within 3000 ms, 20 of 20 in use`, true);
    return -at;
  }
  at += random.around(3 * MS);
  say(at, 'DEBUG', 'core.Beds', `${random.whole(2, 40)} beds free on that night`);
  if (one.fault === 'harmless') say(at + MS, 'ERROR', 'core.Prices', `${one.request} cache of prices does not answer, table asked instead`);
  at += random.around(5 * MS);
  say(at, 'INFO', 'core.Reserve', `${one.request} holds ${guests} beds for ${one.id}`, one.fault === 'restart');
  if (one.fault === 'restart') {
    for (const [after, text] of restarted(random)) {
      const line = reserveLine(at + after, 'INFO', 'main', 'core.Main', text);
      office.sink.emit(RESERVE[one.instance], at + after, line);
    }
    return -at;
  }
  at += random.around(2 * MS);
  if (one.fault === 'new version') {
    say(at, 'ERROR', 'core.Tariff', `${one.request} ${one.id}: no tariff for hut ${UNKNOWN_HUT}`, true);
    return -at;
  }
  return at;
}

/** Paid and confirmed, and what follows from it. Returns when the guest was answered. */
function settle(office: Office, one: Booking, from: Micros): Micros {
  const { random } = office;
  const say = saying(office, one);
  const paid = pay(office, one, from);
  let at = paid.at + random.around(4 * MS);
  if (paid.is === 'silent') return paid.at;
  if (one.fault === 'refused') say(at, 'WARN', 'core.Reserve', `${one.request} for ${one.id} declined by the bank`, true);
  else if (paid.is === 'given up') say(at, 'ERROR', 'core.Reserve', `${one.request} ${one.id} cannot be paid: the bank does not answer`);
  else if (one.fault === 'conflict')
    say(at, 'ERROR', 'core.Reserve', `${one.request} beds of ${one.id} could not be written: version 4 expected, 5 found`, true);
  else if (paid.is === 'pending') {
    say(at, 'INFO', 'core.Reserve', `${one.request} ${one.id} waits for the transfer`);
    if (one.fault !== 'transfer never comes') {
      const came = at + MINUTE * (2 + 4 * random.next());
      const text = `ref=${paid.reference} state=approved by=transfer`;
      office.sink.emit(PAY, came, office.paying(came, 'INFO', random.whole(810, 813), text), one.open);
      confirm(office, { ...one, thread: office.thread(one.instance, came, came + 4 * SECOND) }, came + random.around(5 * MS));
    }
  } else at = confirm(office, one, at);
  return at + random.around(4 * MS);
}

/** Returns when it was said. */
function confirm(office: Office, one: Booking, from: Micros): Micros {
  const { random, sink } = office;
  const { open, id, fault } = one;
  const say = saying(office, one);
  let at = from;
  say(at, 'DEBUG', 'core.Beds', `${random.whole(2, 40)} beds free on that night`);
  at += random.around(3 * MS);
  say(at, 'INFO', 'core.Reserve', `${one.request} booking ${id} is confirmed`);
  const times = fault === 'doubled' ? 2 : 1;
  for (let time = 1; time <= times; time++) {
    const entry = `L-${office.word(32, 7)}`;
    at += random.around(MS);
    say(at, 'INFO', 'core.Reserve', `${one.request} hands entry ${entry} to the ledger`, fault === 'lost before the ledger' || time === 2);
    if (fault === 'astray') {
      const put = at + random.around(55 * MS);
      sink.emit(ARCHIVE, put, archiveLine(put, entry, 'put on the shelf of closed books'), open, true);
    } else if (fault !== 'lost before the ledger') {
      const booked = book(office, open, entry, at, fault);
      if (time === 1) {
        const key = handKey(office, open, id, at);
        if (booked.to > booked.from && key.from < booked.to && booked.from < key.to) open.truth.course?.parallel.push('locks', 'ledger');
      }
      continue;
    }
    handKey(office, open, id, at);
  }
  letter(office, open, id, at, fault === 'never called back');
  one.confirmed.push(at);
  return at;
}

/** The bank: a reference of its own for each time that it is asked. */
function pay(office: Office, { open, request, fault, transfer }: Booking, from: Micros) {
  const { random, sink } = office;
  const pid = random.whole(810, 813);
  const times = fault === 'tried again' ? 2 : fault === 'given up' ? 3 : 1;
  let at = from;
  let reference = '';
  for (let time = 1; time <= times; time++) {
    reference = `PR${office.word(36, 7).toUpperCase()}`;
    const say = (level: string, rest: string, cause = false): void =>
      sink.emit(PAY, at, office.paying(at, level, pid, `ref=${reference} ${rest}`), open, cause);
    at += random.around(6 * MS);
    say('INFO', `rq=${request} state=asked amount=${random.whole(30, 400)}.00`, fault === 'bank silent');
    if (fault === 'bank silent') return { is: 'silent', at, reference } as const;
    const took = fault === 'bank slow' ? SECOND * (4 + 5 * random.next()) : random.around(240 * MS);
    if (fault === 'bank slow') open.truth.lostMs = Math.round((took - 240 * MS) / MS);
    at += took;
    const late = time < times || fault === 'given up';
    const state = late ? 'timeout' : transfer ? 'pending' : fault === 'refused' ? 'declined' : 'approved';
    const last = time === times && (fault === 'given up' || fault === 'bank slow' || fault === 'transfer never comes');
    say(late ? 'WARN' : 'INFO', `state=${state} took=${Math.round(took / MS)}ms`, last);
    if (late) at += 400 * MS;
  }
  return { is: fault === 'given up' ? 'given up' : transfer ? 'pending' : 'answered', at: at + random.around(3 * MS), reference } as const;
}

/** The door of the hut: spelled without its hyphen, under a short session number. Returns from when to when. */
function handKey(office: Office, open: OpenTruth, id: string, from: Micros): { from: Micros; to: Micros } {
  const { random, sink } = office;
  const begin = from + random.around(40 * MS);
  const session = office.session(begin);
  const plain = id.replace('-', '');
  sink.emit(LOCKS, begin, locksLine(begin, 'INFO', session, plain, 'code asked for'), open);
  const end = begin + random.around(80 * MS);
  sink.emit(LOCKS, end, locksLine(end, 'INFO', session, plain, `code written to lock ${random.whole(1, 9)}`), open);
  return { from: begin, to: end };
}
/** The ledger knows its entry alone; it writes while the code is still on its way to the lock. Returns from when to when. */
function book({ random, sink }: Office, open: OpenTruth, entry: string, from: Micros, fault: Fault | null): { from: Micros; to: Micros } {
  const begin = from + random.around(55 * MS);
  const say = (at: Micros, text: string, cause = false, level = 'INFO'): void => sink.emit(LEDGER, at, ledgerLine(at, entry, text, level), open, cause); // prettier-ignore
  say(begin, `taken into book ${random.whole(1, 4)}`, fault === 'lost in the ledger');
  if (fault === 'lost in the ledger') return { from: begin, to: begin };
  let end = begin + random.around(90 * MS);
  if (fault === 'branch failed') say(end, 'account 4400 is closed, entry not balanced', true, 'ERROR');
  else say(end, 'balanced');
  if (fault === 'delivered again') say((end += 2 * SECOND), 'delivered again, already balanced');
  return { from: begin, to: end };
}
/** A letter: spelled in small letters, under the name of its place in the queue. */
function letter(office: Office, open: OpenTruth, id: string, from: Micros, last: boolean): void {
  const { random, sink } = office;
  let at = from + random.around(60 * MS);
  const queue = office.queue(at);
  sink.emit(NOTIFIER, at, notifierLine(at, 640, `${queue} letter for ${id.toLowerCase()} queued`), open);
  at += SECOND + random.around(2 * SECOND);
  sink.emit(NOTIFIER, at, notifierLine(at, 640, `letter for ${id.toLowerCase()} sent, ${queue} free`), open, last);
}

/** Hours later somebody asks how the booking stands: a request of its own, of the same strand. */
export function lookedUp(office: Office, start: Micros, { id, open }: Asked): void {
  const { random, sink } = office;
  const request = office.request();
  const instance = random.pick(['a', 'b'] as const);
  const thread = office.thread(instance, start, start + SECOND);
  if (open.truth.course) open.truth.course.legs++;
  sink.emit(WEB, start, webLine(start, 'info', request, `booking ${id} looked up`), open);
  let at = start + random.around(4 * MS);
  const say = (logger: string, message: string): void => sink.emit(RESERVE[instance], at, reserveLine(at, 'INFO', thread, logger, message), open);
  say('core.Door', `${request} taken up`);
  at += random.around(4 * MS);
  say('core.Reserve', `${request} tells how ${id} stands`);
  at += random.around(4 * MS);
  sink.emit(WEB, at, webLine(at, 'info', request, 'answered with 200'), open);
}

/** The hut calls back that the guests of a booking have come: a request of its own, of the same strand. */
export function calledBack(office: Office, start: Micros, { id, open }: Asked): void {
  const { random, sink } = office;
  const request = office.request();
  const instance = random.pick(['a', 'b'] as const);
  const thread = office.thread(instance, start, start + SECOND);
  if (open.truth.course) open.truth.course.legs++;
  sink.emit(WEB, start, webLine(start, 'info', request, `hut tells that guests of ${id} have come`), open);
  let at = start + random.around(4 * MS);
  const say = (logger: string, message: string): void => sink.emit(RESERVE[instance], at, reserveLine(at, 'INFO', thread, logger, message), open);
  say('core.Door', `${request} taken up`);
  at += random.around(6 * MS);
  say('core.Reserve', `${request} closes ${id}`);
  at += random.around(4 * MS);
  sink.emit(WEB, at, webLine(at, 'info', request, 'answered with 204'), open);
}
export const someHut = (office: Office): string => office.random.pick(HUTS);
