import type { Blank, Runbook, RunbookStep, StepLook } from './types.ts';

const component: Blank = { name: 'component', label: 'Component', kind: 'choice', values: { field: 'component' }, usual: '' };
const strands = (more: Partial<Extract<StepLook, { what: 'strands' }>>): StepLook => ({
  what: 'strands',
  identifier: '',
  flow: '',
  outcome: '',
  failedIn: '',
  component: '',
  by: 'none',
  among: '',
  ...more,
});
const step = (name: string, title: string, look: StepLook, found: string, nothing: string, around: RunbookStep['around'] = null): RunbookStep => ({
  name,
  title,
  look,
  around,
  found,
  nothing,
});
const found = (when: string, text: string) => ({ when, has: 'found' as const, text });
const nothing = (when: string, text: string) => ({ when, has: 'nothing' as const, text });
const BAD = 'failed,stalled';

/** Runbooks that come with the application, for any world. */
export const SUPPLIED_RUNBOOKS: readonly Runbook[] = [
  {
    name: 'met-a-restart',
    title: 'Which transactions met the restart of a component?',
    about: 'A restart explains what it interrupted, though the component’s own log says nothing about it.',
    blanks: [component],
    steps: [
      step(
        'restart',
        'Restarts, stops and starts that are recorded',
        { what: 'changes', component: '{component}' },
        '{component} was changed or started {restart.count} times, first at {restart.first}. Look which of them are restarts, and what was at work then.',
        'No record tells of a restart of {component} in this window. Widen the window; a host’s log may tell what the component’s does not.',
      ),
      step(
        'met',
        'Strands that were in the component then',
        { what: 'records', q: 'where component = {component}', by: 'strand' },
        '{met.count} records of {met.values} stand around it. Those that went on are fine; look at what became of the others.',
        'Nothing was in {component} around its restart: it harmed nobody.',
        { step: 'restart', at: 'each', before: '10min', after: '30s' },
      ),
      step(
        'harmed',
        'Those of them that failed, stand still or were held up',
        strands({ among: 'met', outcome: `${BAD},slow`, by: 'finding' }),
        '{harmed.count} of them were harmed: {harmed.sentence} Start again what did not come through, or tell whoever waits for it.',
        'All of them came through in their usual time.',
      ),
    ],
    finding: [
      found('restart', '{component} was started again, first at {restart.first}.'),
      found('harmed', '{harmed.count} that were in it then failed, stood still or were held up. {harmed.sentence}'),
      nothing('harmed', 'All that were in it then came through in their usual time.'),
    ],
  },
  {
    name: 'calls-of-a-number',
    title: 'Which calls of a number failed, and how?',
    about: 'From a caller to his calls, what went wrong in them, and since when.',
    blanks: [{ name: 'number', label: 'Number of the caller, in any notation', kind: 'text', values: null, usual: '' }],
    steps: [
      step(
        'calls',
        'Everything of this number',
        strands({ identifier: '{number}', by: 'flow' }),
        '{calls.count} strands from {calls.first} to {calls.last}: {calls.top}. Look which of them went wrong.',
        'Nothing is known of {number} in this window. Widen the window, and see under Identifiers whether numbers are recognised as they are written here.',
      ),
      step(
        'bad',
        'Those that went wrong',
        strands({ identifier: '{number}', outcome: 'failed,stalled,slow,odd', by: 'finding' }),
        '{bad.count} went wrong, most often so: {bad.sentence} Look whether others are concerned too: open the group.',
        'None of them went wrong: what was complained about lies in front of what is recorded here.',
      ),
    ],
    finding: [
      found('calls', '{number}: {calls.count} strands from {calls.first} to {calls.last}.'),
      found('bad', '{bad.count} of them went wrong. {bad.sentence}'),
      nothing('bad', 'None of them went wrong.'),
    ],
  },
  {
    name: 'runs-too-small',
    title: 'Which runs ended well, but did too little?',
    about: 'A green run that read almost nothing is a fault that nobody hears of, until what it should have brought is missing.',
    blanks: [],
    steps: [
      step(
        'small',
        'Strands that are odd against what is usual for them',
        strands({ outcome: 'odd', by: 'finding' }),
        '{small.count} are odd: {small.sentence} Look what their source gave them, and who built on the result.',
        'No run of this window did markedly less or more than is usual.',
      ),
    ],
    finding: [found('small', '{small.count} ended well, but not as usual. {small.sentence}')],
  },
  {
    name: 'who-held-the-lock',
    title: 'Who held the lock while these waited?',
    about: 'Who waits for a lock shouts; who holds it is silent.',
    blanks: [],
    steps: [
      step(
        'waited',
        'Records that tell of waiting for a lock',
        { what: 'records', q: "where message like '%waiting for%' and message like '%lock%'", by: 'strand' },
        '{waited.count} such records, first at {waited.first}, last at {waited.last}: {waited.top}. Look who held it.',
        'Nobody is recorded to have waited for a lock. A database tells of it only where it is set to (in PostgreSQL: log_lock_waits).',
      ),
      step(
        'held',
        'Who held it',
        strands({ among: 'waited', by: 'caused-by' }),
        'The lock was held by {held.top}. Look what it did so long.',
        'Who held it is not told. Look what else was at work in the database then.',
      ),
    ],
    finding: [found('waited', 'From {waited.first} to {waited.last} there was waiting for locks.'), found('held', 'They were held by {held.top}.')],
  },
  {
    name: 'changed-before',
    title: 'What changed before it began?',
    about: 'The first failure of a component, and what was changed in the hours before it.',
    blanks: [component],
    steps: [
      step(
        'bad',
        'Strands that failed or stand still in it',
        strands({ failedIn: '{component}', outcome: BAD, by: 'finding' }),
        '{bad.count} since {bad.first}: {bad.sentence} Look what changed before the first of them.',
        'Nothing failed in {component}. Perhaps it fails somewhere else because of it: look at Changes.',
      ),
      step(
        'changed',
        'What changed in the six hours before the first',
        { what: 'changes', component: '' },
        '{changed.count} changes, the latest at {changed.last}: {changed.values}. The nearest before is not yet the cause: a strand’s evidence tells how much likelier the fault is since.',
        'Nothing is recorded to have changed. Ask who changed something, and register it under Changes.',
        { step: 'bad', at: 'first', before: '6h', after: '1s' },
      ),
    ],
    finding: [
      found('bad', 'In {component} {bad.count} transactions failed or stood still since {bad.first}. {bad.sentence}'),
      found('changed', 'Before it: {changed.values}.'),
      nothing('changed', 'Nothing is recorded to have changed in the six hours before.'),
    ],
  },
  {
    name: 'party-today',
    title: 'What did a party experience?',
    about: 'Everything of a shop, a customer, a user or a caller in the window, and how it ended.',
    blanks: [{ name: 'party', label: 'Shop, customer, user or caller', kind: 'text', values: null, usual: '' }],
    steps: [
      step(
        'all',
        'Everything of this party',
        strands({ identifier: '{party}', by: 'flow' }),
        '{all.count} strands from {all.first} to {all.last}: {all.top}.',
        'Nothing is known of {party} in this window. Widen it, or look in Find whether the name occurs at all.',
      ),
      step(
        'bad',
        'What did not go well',
        strands({ identifier: '{party}', outcome: 'failed,stalled,slow,odd,doubled', by: 'finding' }),
        '{bad.count} did not go well, most often so: {bad.sentence} See in What they share whether it is this party alone.',
        'All went well.',
      ),
      step(
        'refused',
        'What was refused for a reason of business',
        strands({ identifier: '{party}', outcome: 'refused', by: 'finding' }),
        '{refused.count} were refused: {refused.sentence} That is no fault; tell the party why.',
        'Nothing was refused.',
      ),
    ],
    finding: [
      found('all', '{party}: {all.count} strands from {all.first} to {all.last}.'),
      found('bad', '{bad.count} of them did not go well. {bad.sentence}'),
      nothing('bad', 'All of them went well.'),
      found('refused', '{refused.count} were refused.'),
    ],
  },
  {
    name: 'dead-queue',
    title: 'Which messages ended in a dead queue, and why?',
    about: 'A broker gives a message up silently; the reason stands at whoever refused it.',
    blanks: [],
    steps: [
      step(
        'dead',
        'Messages that were given up',
        {
          what: 'records',
          q: "where message like '%to=dead%' or message like '%dead letter%' or message like '%dead-letter%' or message like '%dead queue%'",
          by: 'strand',
        },
        '{dead.count} such records, first at {dead.first}, last at {dead.last}. Look what their strands tell.',
        'No message was given up in this window.',
      ),
      step(
        'why',
        'Why',
        strands({ among: 'dead', by: 'finding' }),
        'Most often: {why.sentence} Mend that, and send them again from the dead queue.',
        'Their strands tell no reason.',
      ),
    ],
    finding: [found('dead', '{dead.count} messages were given up from {dead.first} to {dead.last}.'), found('why', 'Most often: {why.sentence}')],
  },
  {
    name: 'health-truth',
    title: 'Is a health check telling the truth?',
    about: 'A check that answers well says only that something answers; whether the work is done, the strands tell.',
    blanks: [{ name: 'path', label: 'What the check’s records hold', kind: 'text', values: null, usual: 'health' }],
    steps: [
      step(
        'well',
        'Checks that were answered well',
        { what: 'records', q: '{path} where not level in (error, fatal) and not status >= 400', by: 'component' },
        '{well.count} checks were answered well, from {well.first} to {well.last}, by {well.top}. Look whether the work went well too.',
        'No check was answered well, or none is recorded.',
      ),
      step(
        'ill',
        'Checks that were not',
        { what: 'records', q: '{path} where level in (error, fatal) or status >= 400', by: 'component' },
        '{ill.count} were not, first at {ill.first}.',
        'None was answered otherwise.',
      ),
      step(
        'bad',
        'Work that failed or stands still',
        strands({ outcome: BAD, by: 'failedIn' }),
        '{bad.count} transactions failed or stood still since {bad.first}, in {bad.top}.',
        'All work came through: the checks tell the truth.',
      ),
    ],
    finding: [
      found('well', '{well.count} health checks were answered well from {well.first} to {well.last}.'),
      found('ill', '{ill.count} were not.'),
      found('bad', 'In the same time {bad.count} transactions failed or stood still, in {bad.top}: the checks do not look that far.'),
      nothing('bad', 'All work came through in that time: the checks tell the truth.'),
    ],
  },
];
