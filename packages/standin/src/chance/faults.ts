import type { Call, Flow, Step } from './types.ts';
import { allSteps } from './draw.ts';

/** What a fault does where it strikes. */
export type Effect =
  | 'raise' | 'raise-nested' | 'sql-error' | 'sql-retried' | 'refuse' | 'refuse-quietly' | 'soft' | 'forbidden' | 'disk-full' | 'certificate'
  | 'cut' | 'slow' | 'slow-quietly' | 'lock' | 'pool' | 'unreachable' | 'tries-in-vain' | 'timeout' | 'timeout-retried' | 'bounced'
  | 'lose' | 'misroute' | 'poison' | 'twice' | 'backlog' | 'crash-again' | 'crash' | 'sent-twice' | 'too-large' | 'malformed' | 'gone' | 'network'
  | 'few-rows' | 'rows-skipped' | 'overrun' | 'no-call-back' | 'late-call-back' | 'astray'; // prettier-ignore

/** A kind of fault: what it does, to which step, what comes of it. */
export interface Fault {
  name: string;
  effect: Effect;
  outcomes: readonly string[];
  /** Steps of a flow that it may strike. */
  strikes(flow: Flow): Step[];
  /** It comes in a window of time, with what announces it. */
  incident?: 'version' | 'setting' | 'stop' | 'load';
}

const called = (flow: Flow, how: Call['how'], fits: (step: Step) => boolean = () => true): Step[] =>
  allSteps(flow.root).flatMap((step) => step.calls.flatMap((call) => (call.how === how && fits(call.to) ? [call.to] : [])));
const role = (...roles: Step['component']['role'][]) => (flow: Flow): Step[] => allSteps(flow.root).filter(({ component }) => roles.includes(component.role)); // prettier-ignore
const working = role('service', 'worker', 'partner');
const queued = (flow: Flow): Step[] => called(flow, 'queued');
const answered = (flow: Flow): Step[] => called(flow, 'answered', ({ component }) => component.role !== 'database');
const root = (flow: Flow): Step[] => [flow.root];
const doors = (flow: Flow): Step[] => (flow.root.component.role === 'door' && !flow.brought ? [flow.root] : []);
const jobs = (flow: Flow): Step[] => (flow.root.component.role === 'jobs' ? [flow.root] : []);
const database = role('database');
const waiting = (flow: Flow): Step[] => (flow.later?.always ? [flow.root] : []);

export const FAULTS: readonly Fault[] = [
  { name: 'exception', effect: 'raise', outcomes: ['failed'], strikes: working },
  { name: 'nested exception', effect: 'raise-nested', outcomes: ['failed'], strikes: working },
  { name: 'setting changed', effect: 'raise', outcomes: ['failed'], strikes: working, incident: 'setting' },
  { name: 'new version', effect: 'raise', outcomes: ['failed'], strikes: working, incident: 'version' },
  { name: 'statement failed', effect: 'sql-error', outcomes: ['failed'], strikes: database },
  { name: 'deadlock, tried again', effect: 'sql-retried', outcomes: ['done', 'slow'], strikes: database },
  { name: 'rejected', effect: 'refuse', outcomes: ['refused'], strikes: role('service') },
  { name: 'rejected quietly', effect: 'refuse-quietly', outcomes: ['refused', 'failed'], strikes: role('service', 'partner') },
  { name: 'bad result in a good answer', effect: 'soft', outcomes: ['failed', 'refused'], strikes: answered },
  { name: 'not allowed', effect: 'forbidden', outcomes: ['refused', 'failed'], strikes: answered },
  { name: 'disk full', effect: 'disk-full', outcomes: ['failed'], strikes: working },
  { name: 'certificate', effect: 'certificate', outcomes: ['failed'], strikes: role('partner') },
  { name: 'cut off', effect: 'cut', outcomes: ['stalled'], strikes: working },
  { name: 'slow statement', effect: 'slow', outcomes: ['slow'], strikes: database },
  { name: 'lock wait', effect: 'lock', outcomes: ['slow'], strikes: database },
  { name: 'slow work', effect: 'slow', outcomes: ['slow'], strikes: working },
  { name: 'slow partner', effect: 'slow-quietly', outcomes: ['slow'], strikes: role('partner') },
  { name: 'no connection left', effect: 'pool', outcomes: ['slow'], strikes: role('service', 'worker') },
  { name: 'slow client', effect: 'network', outcomes: ['slow'], strikes: doors },
  { name: 'not reachable', effect: 'unreachable', outcomes: ['failed'], strikes: answered, incident: 'stop' },
  { name: 'tried in vain', effect: 'tries-in-vain', outcomes: ['failed'], strikes: answered },
  { name: 'no answer', effect: 'timeout', outcomes: ['failed'], strikes: answered },
  { name: 'no answer, tried again', effect: 'timeout-retried', outcomes: ['done', 'slow'], strikes: answered },
  { name: 'not delivered', effect: 'bounced', outcomes: ['failed', 'odd'], strikes: queued },
  { name: 'message lost', effect: 'lose', outcomes: ['stalled'], strikes: queued },
  { name: 'wrong queue', effect: 'misroute', outcomes: ['stalled', 'odd'], strikes: queued },
  { name: 'set aside', effect: 'poison', outcomes: ['failed'], strikes: queued },
  { name: 'done twice', effect: 'twice', outcomes: ['doubled'], strikes: queued },
  { name: 'queue too long', effect: 'backlog', outcomes: ['slow'], strikes: queued, incident: 'load' },
  { name: 'crash, delivered again', effect: 'crash-again', outcomes: ['slow', 'done'], strikes: queued },
  { name: 'crash', effect: 'crash', outcomes: ['stalled', 'failed'], strikes: queued },
  {
    name: 'sent twice',
    effect: 'sent-twice',
    outcomes: ['doubled'],
    strikes: (flow) => (flow.brought && flow.root.component.role === 'door' ? [flow.root] : []),
  },
  { name: 'too large', effect: 'too-large', outcomes: ['refused', 'failed'], strikes: doors },
  { name: 'not readable', effect: 'malformed', outcomes: ['refused', 'failed'], strikes: doors },
  { name: 'client gone', effect: 'gone', outcomes: ['failed', 'refused', 'stalled'], strikes: doors },
  { name: 'few rows', effect: 'few-rows', outcomes: ['odd'], strikes: jobs },
  { name: 'rows skipped', effect: 'rows-skipped', outcomes: ['odd', 'failed'], strikes: jobs },
  { name: 'overrun', effect: 'overrun', outcomes: ['slow'], strikes: jobs },
  { name: 'no call back', effect: 'no-call-back', outcomes: ['stalled'], strikes: waiting },
  { name: 'late call back', effect: 'late-call-back', outcomes: ['slow'], strikes: waiting },
  { name: 'astray', effect: 'astray', outcomes: ['odd', 'stalled'], strikes: (flow) => root(flow).filter((step) => allSteps(step).length > 4) },
];
/** What is slow by so much stands out of what is usual. */
export const SLOW_TIMES = { least: 12, most: 40 } as const;
