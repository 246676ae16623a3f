import { Random } from '../writing/random.ts';
import { DAY, HOUR, MINUTE, MS, SECOND, type Micros } from '../writing/times.ts';
import { businessForm, linkForm, type Form } from './forms.ts';
import { ACCESS, drawnFieldTime, drawnTime, SYSLOG_3164, SYSLOG_5424 } from './time-layouts.ts';
import type { Call, ChanceWorld, Component, Flow, Host, Layout, Naming, Step } from './types.ts';
import { ACTS, inventedWord, LANGUAGES, phrasesOf, type Act } from './words.ts';

const START = Date.UTC(2026, 1, 3, 7) * MS;
/** Ten minutes to twelve days. */
const LENGTHS: readonly Micros[] = [10 * MINUTE, 30 * MINUTE, 2 * HOUR, 8 * HOUR, DAY, 3 * DAY, 12 * DAY];
const LEVELS: readonly (readonly string[])[] = [
  ['DEBUG', 'INFO', 'WARN', 'ERROR'],
  ['debug', 'info', 'warning', 'error'],
  ['D', 'I', 'W', 'E'],
  ['FINE', 'INFO', 'WARNING', 'SEVERE'],
  ['DBG', 'INF', 'WRN', 'ERR'],
];
const NUMBERED = ['20', '30', '40', '50'];
const ROLE_WORDS: Record<Component['role'], readonly string[]> = {
  door: ['gate', 'edge', 'portal', 'front'],
  service: ['desk', 'core', 'calc', 'check', 'plan', 'book', 'rate', 'stock'],
  database: ['db', 'store'],
  broker: ['relay', 'queue', 'bus'],
  worker: ['worker', 'press', 'sender', 'mailer'],
  jobs: ['batch', 'jobs'],
  partner: ['gateway', 'link', 'bridge'],
};

/** Draws a world: who there is, how they call each other, how each of them writes. */
export function drawWorld(seed: number): ChanceWorld {
  const root = new Random(seed);
  const random = { of: (purpose: string) => root.fork(purpose) };
  const language = random.of('language').pick(LANGUAGES);
  const hosts = drawHosts(random.of('hosts'));
  const kinds = drawKinds(random.of('kinds'));
  const components = drawComponents(random.of('components'), hosts, language, kinds);
  const from = START + random.of('begin').whole(0, 200) * DAY;
  const length = random.of('length').pick(LENGTHS);
  const world: ChanceWorld = { seed, components, hosts, flows: [], ...kinds, from, to: from + length, language };
  for (const host of hosts) drawClock(random.of(`clock ${host.name}`), host, from, length);
  world.flows = drawFlows(random.of('flows'), world);
  return world;
}

function drawHosts(random: Random): Host[] {
  const word = inventedWord(random, 2);
  const style = random.whole(0, 2);
  return Array.from({ length: random.whole(2, 7) }, (_, i) => ({
    name: style === 0 ? `${word}-${String(i + 1).padStart(2, '0')}` : style === 1 ? `${inventedWord(random, 2)}${i + 1}` : `${word}${i + 1}.example`,
    address: `10.${random.whole(0, 200)}.${random.whole(0, 200)}.${10 + i}`,
    clock: [],
  }));
}
function drawClock(random: Random, host: Host, from: Micros, length: Micros): void {
  const ahead = random.chance(0.5) ? 0 : Math.round(random.around(random.pick([0.05, 0.4, 2, 6]) * SECOND, 0.5)) * (random.chance(0.5) ? 1 : -1);
  const drift = random.chance(0.15) ? (random.whole(1, 4) * SECOND) / Math.max(length, HOUR) : 0;
  host.clock.push({ from: 0, ahead, drift: 0 });
  if (drift > 0) host.clock.push({ from, ahead, drift });
  else if (random.chance(0.1))
    host.clock.push({ from: from + random.whole(30, 70) * (length / 100), ahead: ahead - random.whole(2, 9) * SECOND, drift: 0 });
}

type Kinds = Pick<ChanceWorld, 'business' | 'links' | 'party'>;
function drawKinds(random: Random): Kinds {
  const business = new Map<string, Form>();
  const taken = new Set<string>();
  const names = random.chance(0.5) ? ['order', 'parcel', 'claim', 'case', 'run', 'offer'] : Array.from({ length: 6 }, () => inventedWord(random, 2));
  for (const name of names.slice(0, random.whole(2, 4))) {
    const form = businessForm(random, name, taken);
    taken.add(form.prefix);
    business.set(name, form);
  }
  return {
    business,
    links: new Map(['request', 'message'].map((name) => [name, linkForm(random, name)])),
    party: { name: 'customer', make: (own) => `C${own.whole(1000, 1400)}`, pattern: 'C\\d{4}', spellings: [(value) => value] },
  };
}

function drawComponents(random: Random, hosts: readonly Host[], language: (typeof LANGUAGES)[number], kinds: Kinds): Component[] {
  const roles: Component['role'][] = ['door', 'service', 'service', 'database', 'worker'];
  for (let i = random.whole(0, 4); i > 0; i--) roles.push('service');
  if (random.chance(0.7)) roles.push('broker');
  if (random.chance(0.6)) roles.push('worker');
  if (random.chance(0.5)) roles.push('partner');
  if (random.chance(0.5)) roles.push('jobs');
  const phrases = phrasesOf(language, random);
  return roles.map((role, i) => drawComponent(random.fork(`component ${i}`), role, hosts, phrases, kinds));
}

function drawComponent(
  random: Random,
  role: Component['role'],
  hosts: readonly Host[],
  phrases: Record<Act, readonly string[]>,
  kinds: Kinds,
): Component {
  const layout: Layout =
    role === 'door' && random.chance(0.6) ? 'access' : role === 'database' && random.chance(0.6) ? 'database' : random.pick(['json', 'json', 'logfmt', 'text', 'text', 'text', 'text', 'syslog5424', 'syslog3164', 'csv', 'xml']); // prettier-ignore
  const time = layout === 'access' ? ACCESS : layout === 'syslog3164' ? SYSLOG_3164 : layout === 'syslog5424' ? SYSLOG_5424 : layout === 'text' || layout === 'csv' ? drawnTime(random) : drawnFieldTime(random); // prettier-ignore
  const own = [...hosts];
  const first = own.splice(random.whole(0, own.length - 1), 1)[0]!;
  const bare = layout === 'access' || layout === 'syslog3164';
  return {
    name: `${inventedWord(random, 2)}-${random.pick(ROLE_WORDS[role])}`,
    role,
    hosts: own.length > 0 && random.chance(0.25) && role !== 'database' ? [first, random.pick(own)] : [first],
    layout,
    time,
    levels: bare ? null : random.chance(0.1) && layout !== 'json' ? null : layout === 'json' && random.chance(0.3) ? NUMBERED : random.pick(LEVELS),
    lanes: {
      count: random.whole(3, 16),
      name: random.pick(['worker-$1', 'exec-$1', 'pool-1-thread-$1', '$1', 't$1']),
      pids: random.whole(300, 32_000),
    },
    phrases: Object.fromEntries(ACTS.map((act) => [act, random.pick(phrases[act])])) as Record<Act, string>,
    names: namesOf(random, role, kinds),
    inline: random.pick(['before', 'behind', 'behind', 'brackets', 'bare']),
    head: {
      order: random.pick([['time', 'level', 'lane', 'logger'], ['time', 'lane', 'level', 'logger'], ['level', 'time', 'logger', 'lane'], ['time', 'level', 'logger'], ['time', 'level', 'lane']] as const), // prettier-ignore
      brackets: random.pick(['', '', '[]', '()']),
      separator: random.pick([' ', ' ', ' | ', ' - ', '\t', ';']),
    },
    // only where its threads tell
    nameless: random.pick([0, 0.3, 0.6, 0.9]),
    tellsCalls: random.chance(0.7),
    loggers: Array.from({ length: 3 }, () => random.pick(['', `${inventedWord(random, 1)}.`]) + inventedWord(random, 2)),
    version: `${random.whole(1, 6)}.${random.whole(0, 20)}.${random.whole(0, 9)}`,
  };
}

/** Some write the request's number, some the business number, few both; whoever deals with queues writes the message's. What is missing between two that call each other is added later. */
function namesOf(random: Random, role: Component['role'], { business, links, party }: Kinds): Map<string, Naming> {
  const names = new Map<string, Naming>();
  const what = random.pick(['both', 'request', 'request', 'business', 'neither']);
  if (what === 'both' || what === 'request' || role === 'door') addName(random, names, links.get('request')!);
  if (what === 'both' || what === 'business' || role === 'jobs') for (const form of business.values()) addName(random, names, form);
  if (random.chance(0.3)) addName(random, names, party);
  return names;
}
function addName(random: Random, names: Map<string, Naming>, form: Form): void {
  if (!names.has(form.name)) names.set(form.name, { key: keyOf(random, form.name), spelling: random.pick(form.spellings) });
}
const keyOf = (random: Random, name: string): string =>
  random.pick([name, name, `${name}Id`, `${name}_id`, `${name}No`, name.slice(0, 3), inventedWord(random, 2)]);

function drawFlows(random: Random, world: ChanceWorld): Flow[] {
  const kinds = [...world.business.keys()];
  const jobs = world.components.filter((one) => one.role === 'jobs');
  const count = Math.min(kinds.length, random.whole(2, 3));
  return Array.from({ length: count }, (_, i): Flow => {
    const isJob = i > 0 && i === count - 1 && jobs.length > 0;
    const own = random.fork(`flow ${i}`);
    const drawer = new StepDrawer(own, world);
    const entry = isJob ? jobs[0]! : own.pick(world.components.filter((one) => one.role === 'door'));
    const root = drawer.step(entry, 0);
    const brought = isJob || own.chance(0.35);
    const steps = allSteps(root);
    // born early on the way, where somebody writes it
    if (!brought) {
      const bearer = steps.find(({ component }, at) => at > 0 && component.names.has(kinds[i]!)) ?? steps[1] ?? steps[0]!;
      bearer.bears = kinds[i]!;
      addName(own, bearer.component.names, world.business.get(kinds[i]!)!);
    }
    const second = !isJob && i === 0 && kinds.length > count && own.chance(0.8) ? kinds[count]! : null;
    if (second) {
      const place = steps
        .slice(1)
        .filter(({ component, bears }) => bears === null && component.names.has(second))
        .at(-1);
      if (place) place.bears = second;
    }
    const later = !isJob && own.chance(0.5) ? { root: new StepDrawer(own.fork('later'), world).short(entry), share: 0.35, after: own.whole(2, 30) * MINUTE, always: own.chance(0.2) } : null; // prettier-ignore
    // what comes later is tied by the number alone
    if (later)
      for (const { component } of [allSteps(later.root)[1]!, ...steps.filter((step) => step.bears !== null)])
        addName(own, component.names, world.business.get(kinds[i]!)!);
    if (brought) addName(own, root.calls[0]?.to.component.names ?? entry.names, world.business.get(kinds[i]!)!);
    connect(own, root, world, new Set(['request', ...(brought ? [kinds[i]!] : [])]));
    if (later) connect(own, later.root, world, new Set(['request', kinds[i]!]));
    return { name: `${kinds[i]!}-${i}`, kind: kinds[i]!, root, weight: isJob ? 0.15 : own.whole(2, 5), brought, later };
  });
}

/**
 * Sees to it that whoever calls and whoever is called write one number in common: where they do not yet, one is born for it that nobody else writes.
 *
 * @param known numbers that the caller has
 */
function connect(random: Random, step: Step, world: ChanceWorld, known: ReadonlySet<string>): void {
  const { component, calls } = step;
  const own = new Set([...known, ...(step.bears === null ? [] : [step.bears]), ...(step.refers === null ? [] : [step.refers])]);
  for (const { how, to, carries } of calls) {
    const goes =
      how !== 'queued' ? own : new Set(carries === 'all' ? own : carries === 'numbers' ? [...own].filter((kind) => world.business.has(kind)) : []);
    if (how === 'queued') {
      for (const one of [component, to.component]) if (one.layout !== 'access') addName(random, one.names, world.links.get('message')!);
      const broker = world.components.find((one) => one.role === 'broker');
      if (broker) addName(random, broker.names, world.links.get('message')!);
    } else if (![...goes].some((kind) => component.names.has(kind) && to.component.names.has(kind))) {
      const link =
        component.layout === 'access'
          ? world.links.get('request')!
          : step.refers === null
            ? newLink(random, step, world)
            : world.links.get(step.refers)!;
      addName(random, component.names, link);
      addName(random, to.component.names, link);
      own.add(link.name);
    }
    connect(random, to, world, new Set(how === 'queued' ? [...goes, 'message'] : goes));
  }
}
function newLink(random: Random, step: Step, world: ChanceWorld): Form {
  const link = linkForm(random, `${inventedWord(random, 2)}Ref`);
  world.links.set(link.name, link);
  step.refers = link.name;
  return link;
}

/** Steps of a flow from its root, callers before those they call. */
export const allSteps = (step: Step): Step[] => [step, ...step.calls.flatMap((call) => allSteps(call.to))];

class StepDrawer {
  private count = 0;
  private readonly used = new Set<Component>();
  constructor(
    private readonly random: Random,
    private readonly world: ChanceWorld,
  ) {}

  step(component: Component, depth: number): Step {
    const { random } = this;
    this.used.add(component);
    const step = this.own(component);
    const width = depth === 0 ? 1 : depth > 3 || component.role === 'database' || component.role === 'broker' ? 0 : random.whole(1, 3);
    for (let i = 0; i < width; i++) {
      const call = this.call(depth, i > 0 ? step.calls : []);
      if (call) step.calls.push(call);
    }
    return step;
  }
  /** A question: the door, a service, the database. */
  short(entry: Component): Step {
    const root = this.own(entry);
    const service = this.own(this.random.pick(this.world.components.filter((one) => one.role === 'service')));
    root.calls.push({ how: 'answered', together: null, queue: '', carries: 'all', to: service });
    const database = this.world.components.find((one) => one.role === 'database');
    if (database) service.calls.push({ how: 'answered', together: null, queue: '', carries: 'all', to: this.own(database) });
    return root;
  }

  private own(component: Component): Step {
    const { random } = this;
    return {
      id: `s${this.count++}`,
      component,
      task: inventedWord(random, 2),
      median: Math.round(random.around(component.role === 'database' ? 8 * MS : 40 * MS, 0.8)),
      calls: [],
      bears: null,
      refers: null,
      inner: random.whole(0, 3),
    };
  }
  private call(depth: number, before: readonly Call[]): Call | null {
    const { random, world } = this;
    const fresh = world.components.filter((one) => !this.used.has(one) && one.role !== 'door' && one.role !== 'jobs' && one.role !== 'broker');
    const callable = depth === 0 ? fresh.filter((one) => one.role === 'service') : fresh;
    const database = world.components.find((one) => one.role === 'database');
    const to = depth > 0 && database && random.chance(0.3) ? database : callable.length > 0 ? random.pick(callable) : null;
    if (!to) return null;
    const queued = to.role === 'worker' && depth > 0;
    const how = queued ? 'queued' : to.role === 'partner' && random.chance(0.3) ? 'polled' : 'answered';
    const together = before.length > 0 && !queued && random.chance(0.3) ? (before[0]!.together ??= 1) : null;
    return {
      how,
      together,
      queue: queued ? `${inventedWord(random, 2)}.${inventedWord(random, 1)}` : '',
      carries: random.pick(['all', 'numbers', 'nothing'] as const),
      to: this.step(to, depth + 1),
    };
  }
}
