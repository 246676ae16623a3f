import type { TrueTransaction } from '../scoring/true-transaction.ts';
import { Random } from '../writing/random.ts';
import { SECOND, type Micros } from '../writing/times.ts';
import { alter, type Alteration } from './alter.ts';
import { drawWorld } from './draw.ts';
import { FAULTS, type Fault } from './faults.ts';
import { Runner } from './run.ts';
import { Speaker, type Running } from './speaker.ts';
import type { Said } from './said.ts';
import type { ChanceWorld, Component, Flow, Step } from './types.ts';
import { headLine, written } from './write.ts';

/** Share of transactions that meet a fault; the rest of faults come in windows. */
const FAULTY = 0.08;
/** Noise: records that belong to no transaction, of all. */
const NOISE = [0.05, 0.15, 0.3];

export interface DrawnWorld {
  world: ChanceWorld;
  files: { path: string; bytes: Uint8Array; modified: Micros }[];
  truth: TrueTransaction[];
  /** As somebody would declare them: kinds of business numbers with a pattern, and parties that many share. */
  kinds: { name: string; label: string; role: 'business' | 'shared'; patterns: string[]; normal: { case: 'upper'; separators: 'drop' } }[];
  records: number;
  /** Of each transaction's records that name anything, the share that shared numbers tie together, on the average: no more can be found. */
  tied: number;
}

/**
 * Draws a world by seed and lets so many transactions run in it.
 *
 * @param alteration how it writes otherwise: the same happens, and each file has the same records in the same order
 */
export function generateChance(seed: number, transactions: number, alteration: Alteration | null = null): DrawnWorld {
  const world = drawWorld(seed);
  if (alteration) alter(world, alteration);
  const random = new Random(seed ^ 0x5bd1e995);
  const runner = new Runner(world, random.fork('run'));
  const running = transactionsOf(world, random.fork('transactions'), runner, transactions);
  noise(world, random.fork('noise'), runner);
  const { files, places } = write(random.fork('files'), runner.said);
  return {
    world,
    files,
    truth: truthOf(running, runner.said, places),
    kinds: [
      ...[...world.business.values()].map(({ name, pattern }) => ({
        name,
        label: name,
        role: 'business' as const,
        patterns: [pattern],
        normal: NORMAL,
      })),
      { name: world.party.name, label: world.party.name, role: 'shared', patterns: [world.party.pattern], normal: NORMAL },
    ],
    records: runner.said.length,
    tied: tiedShare(runner.said),
  };
}
const NORMAL = { case: 'upper', separators: 'drop' } as const;

interface Window {
  fault: Fault;
  flow: Flow;
  step: Step;
  from: Micros;
  to: Micros;
}

function transactionsOf(world: ChanceWorld, random: Random, runner: Runner, count: number): Running[] {
  const all: Running[] = [];
  const weights = world.flows.flatMap((flow) => Array.from({ length: Math.max(1, Math.round(flow.weight * 4)) }, () => flow));
  const length = world.to - world.from;
  const windows = incidents(world, random.fork('incidents'), runner, length);
  const starts = Array.from({ length: count }, () => world.from + Math.floor(random.next() * length * 0.96)).sort((a, b) => a - b);
  starts.forEach((at, number) => {
    const flow = random.pick(weights);
    const { fault, struck } = faultAt(at, flow, windows, random);
    const one: Running = { number, flow, leg: 1, names: new Map(), own: new Set(), fault, struck, cause: [], next: [], lastAt: at };
    all.push(one);
    if (random.chance(0.9)) one.names.set(world.party.name, world.party.make(random));
    if (flow.brought) {
      const value = world.business.get(flow.kind)!.make(random);
      one.names.set(flow.kind, value);
      one.own.add(value);
    }
    let last = runner.run(flow.root, at, one);
    // what the request itself was given does not go on into what comes later, the number does
    const numbers = new Map([...one.names].filter(([kind]) => world.business.has(kind) || kind === world.party.name));
    for (const value of numbers.keys()) if (world.business.has(value)) one.own.add(numbers.get(value)!);
    if (fault?.effect === 'sent-twice') {
      one.cause.push(flow.root.component);
      one.leg = 2;
      one.names = numbers;
      last = runner.run(flow.root, last + random.whole(1, 20) * SECOND, one);
    }
    const late =
      flow.later &&
      one.names.has(flow.kind) &&
      (flow.later.always ? fault?.effect !== 'no-call-back' : random.chance(flow.later.share) && fault === null);
    if (fault?.effect === 'no-call-back') one.cause.push(flow.root.component);
    if (!flow.later || !late) return;
    const after = random.around(flow.later.after, 0.3) * (fault?.effect === 'late-call-back' ? 15 : 1);
    if (fault?.effect === 'late-call-back') one.cause.push(flow.root.component);
    if (Math.max(last, one.lastAt) + after > world.to) return;
    one.leg++;
    one.names = numbers;
    runner.run(flow.later.root, Math.max(last, one.lastAt) + after, one);
  });
  return all;
}

function faultAt(at: Micros, flow: Flow, windows: readonly Window[], random: Random): { fault: Fault | null; struck: Step | null } {
  const within = windows.find((one) => one.flow === flow && at >= one.from && at < one.to);
  if (within && random.chance(0.9)) return { fault: within.fault, struck: within.step };
  if (!random.chance(FAULTY)) return { fault: null, struck: null };
  const possible = FAULTS.filter((one) => one.incident === undefined && one.strikes(flow).length > 0);
  if (possible.length === 0) return { fault: null, struck: null };
  const fault = random.pick(possible);
  return { fault, struck: random.pick(fault.strikes(flow)) };
}

/** Whoever speaks for no transaction. */
const nobody = (flow: Flow, at: Micros): Running => ({ number: -1, flow, leg: 1, names: new Map(), own: new Set(), fault: null, struck: null, cause: [], next: [], lastAt: at }); // prettier-ignore

/** Windows in which all that comes meets the same, with what announces them. */
function incidents(world: ChanceWorld, random: Random, runner: Runner, length: Micros): Window[] {
  const found: Window[] = [];
  for (const fault of FAULTS) {
    const flow = random.pick(world.flows);
    const steps = fault.strikes(flow);
    if (fault.incident === undefined || steps.length === 0 || !random.chance(0.5)) continue;
    const step = random.pick(steps);
    const from = world.from + length * (0.3 + 0.5 * random.next());
    found.push({ fault, flow, step, from, to: from + length * (0.02 + 0.04 * random.next()) });
    const { component } = step;
    const alone = nobody(flow, from);
    const speaker = new Speaker(runner.voice, component, component.hosts[0]!, 0, alone);
    if (fault.incident === 'setting') speaker.says('setting', from - 2 * SECOND, ['limit', random.whole(2, 90)], 'nothing');
    if (fault.incident === 'version') speaker.says('start', from - 5 * SECOND, [component.name, `${component.version}9`], 'nothing');
    if (fault.incident === 'stop') speaker.says('crash', from - SECOND, [component.name], 'nothing', { level: 3 });
  }
  return found;
}

function noise(world: ChanceWorld, random: Random, runner: Runner): void {
  const count = Math.round(runner.said.length * random.pick(NOISE));
  const idle = nobody(world.flows[0]!, 0);
  const speaking = world.components.filter((one) => one.layout !== 'access' && one.layout !== 'database');
  for (let i = 0; i < count && speaking.length > 0; i++) {
    const component = random.pick(speaking);
    const at = world.from + Math.floor(random.next() * (world.to - world.from));
    const speaker = new Speaker(runner.voice, component, random.pick(component.hosts), random.whole(0, component.lanes.count - 1), idle);
    const act = random.pick(['beat', 'cache', 'pool'] as const);
    speaker.says(act, at, [random.whole(1, 40), 50], 'nothing', { level: random.chance(0.05) ? 2 : random.whole(0, 1) });
  }
}

function write(random: Random, said: readonly Said[]): { files: DrawnWorld['files']; places: Map<Said, string> } {
  const byFile = new Map<string, Said[]>();
  const pathOf = fileNames(random);
  for (const one of said) {
    const path = pathOf(one.component, one.host.name);
    const own = byFile.get(path);
    if (own) own.push(one);
    else byFile.set(path, [one]);
  }
  const places = new Map<Said, string>();
  const files: DrawnWorld['files'] = [];
  for (const [path, own] of byFile) {
    own.sort((a, b) => a.at - b.at || a.order - b.order);
    const parts = own.length > 400 && random.chance(0.2) ? random.whole(2, 3) : 1;
    const each = Math.ceil(own.length / parts);
    for (let part = 0; part < parts; part++) {
      // the newest part bears the plain name
      const name = part === parts - 1 ? path : `${path}.${parts - 1 - part}`;
      const some = own.slice(part * each, (part + 1) * each);
      if (some.length === 0) continue;
      const head = headLine(some[0]!.component);
      const texts = head === '' ? [] : [head];
      let line = texts.length + 1;
      for (const one of some) {
        const text = written(one);
        places.set(one, `${name}:${line}`);
        texts.push(text);
        line += text.split('\n').length;
      }
      files.push({ path: name, bytes: new TextEncoder().encode(`${texts.join('\n')}\n`), modified: some.at(-1)!.at + SECOND });
    }
  }
  return { files, places };
}
function fileNames(random: Random): (component: Component, host: string) => string {
  const byHost = random.chance(0.4);
  const endings: Record<Component['layout'], string> = { json: 'jsonl', logfmt: 'log', text: 'log', syslog5424: 'log', syslog3164: 'log', csv: 'csv', xml: 'xml', access: 'log', database: 'log' }; // prettier-ignore
  return ({ name, layout, hosts }, host) =>
    byHost
      ? `${host}/${name}.${endings[layout]}`
      : `${name}/${hosts.length > 1 ? `${host}` : layout === 'access' ? 'access' : name}.${endings[layout]}`;
}

function truthOf(all: readonly Running[], said: readonly Said[], places: ReadonlyMap<Said, string>): TrueTransaction[] {
  const byNumber = new Map<number, Said[]>();
  for (const one of said) {
    if (one.of < 0) continue;
    const own = byNumber.get(one.of);
    if (own) own.push(one);
    else byNumber.set(one.of, [one]);
  }
  return all.flatMap((one) => {
    const own = byNumber.get(one.number) ?? [];
    // nothing of it was ever written
    if (own.length === 0) return [];
    const legs = new Map<number, string[]>();
    for (const record of own) legs.set(record.leg, [...(legs.get(record.leg) ?? []), places.get(record)!]);
    const told = new Set(own.flatMap((record) => [...record.names.values()]));
    const { fault, cause, flow } = one;
    const struck = fault !== null && cause.length > 0;
    const accepted = [...new Set(cause.map((component) => component.name))].slice(0, 2);
    const by = own.filter((record) => record.cause);
    return [
      {
        id: `T${one.number}`,
        kind: flow.name,
        strand: `T${one.number}`,
        legs: [...legs].sort(([a], [b]) => a - b).map(([, list]) => list),
        byLeg: false,
        identifiers: [...one.own].filter((value) => told.has(value)),
        outcomes: struck ? [...fault.outcomes] : ['done'],
        good: fault === null,
        fault: struck ? fault.name : null,
        cause: struck ? { components: accepted, records: by.map((record) => places.get(record)!) } : null,
        next: one.next.length > 0 ? one.next.map((component) => component.name) : null,
        slowIn: struck && fault.outcomes[0] === 'slow' ? accepted[0]! : null,
      },
    ];
  });
}

/** How much of each transaction hangs together by the numbers that its records name, whatever finds them. */
function tiedShare(said: readonly Said[]): number {
  const byNumber = new Map<number, Said[]>();
  for (const one of said) if (one.of >= 0 && one.names.size > 0) byNumber.set(one.of, [...(byNumber.get(one.of) ?? []), one]);
  let sum = 0;
  for (const own of byNumber.values()) {
    const groups: { values: Set<string>; records: number }[] = [];
    for (const { names, component } of own) {
      const values = new Set(
        [...names].filter(([kind]) => kind !== 'customer' && component.names.has(kind)).map(([kind, value]) => `${kind} ${value}`),
      );
      const met = groups.filter((group) => [...values].some((value) => group.values.has(value)));
      const joined = {
        values: new Set([...values, ...met.flatMap((group) => [...group.values])]),
        records: 1 + met.reduce((all, group) => all + group.records, 0),
      };
      groups.splice(0, groups.length, ...groups.filter((group) => !met.includes(group)), joined);
    }
    sum += Math.max(...groups.map((group) => group.records)) / own.length;
  }
  return sum / byNumber.size;
}
