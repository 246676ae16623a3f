import type { Random } from '../writing/random.ts';
import { MS, SECOND, type Micros } from '../writing/times.ts';
import { SLOW_TIMES, type Effect } from './faults.ts';
import type { Said } from './said.ts';
import { CODES, REASONS, Speaker, stack, Voice, type Running, type Went } from './speaker.ts';
import { beforeWork } from './strike.ts';
import type { Call, ChanceWorld, Component, Host, Step } from './types.ts';
import { inventedWord, type Act } from './words.ts';

/** Runs transactions through the steps of their flows and lets everybody say what they say. */
export class Runner {
  readonly voice = new Voice();
  private readonly lanesFree = new Map<string, Micros[]>();

  /** All that was said. */
  get said(): readonly Said[] {
    return this.voice.said;
  }
  constructor(
    private readonly world: ChanceWorld,
    private readonly random: Random,
  ) {}

  /** Runs a transaction's leg from its root. @returns when it ended */
  run(step: Step, at: Micros, running: Running): Micros {
    running.names = new Map(running.names);
    this.give(running, this.world.links.get('request')!);
    const { end } = this.step(step, at, running);
    return end;
  }
  private give(running: Running, form: { name: string; make(random: Random): string }): string {
    const value = form.make(this.random);
    running.names.set(form.name, value);
    running.own.add(value);
    return value;
  }

  private step(step: Step, at: Micros, running: Running): Went {
    const { random } = this;
    const { component } = step;
    const host = random.pick(component.hosts);
    const lane = this.lane(component, host, at);
    const speaker = new Speaker(this.voice, component, host, lane.number, running);
    const effect = running.struck === step ? running.fault!.effect : null;
    let now = at;
    const pass = (median: Micros): Micros => (now += Math.max(50, Math.round(random.around(median, 0.4))));
    if (component.role === 'door') {
      const refused = this.atTheDoor(effect, speaker, now, step);
      if (refused) return refused;
    } else if (component.role !== 'database') speaker.says('receive', now, [step.task]);
    if (step.bears !== null && !running.names.has(step.bears)) {
      pass(step.median * 0.1);
      this.give(running, this.world.business.get(step.bears)!);
      if (component.role !== 'database') speaker.says('born', now, [step.bears]);
    }
    if (step.refers !== null) this.give(running, this.world.links.get(step.refers)!);
    const early = beforeWork(this.random, effect, speaker, step, now);
    now = early.now;
    if (early.went) return this.leave(lane, early.went);
    for (let i = 0; i < step.inner && component.role !== 'database' && component.layout !== 'access'; i++) {
      pass(step.median / (step.inner + 1));
      speaker.says(
        random.pick(['check', 'found'] as const),
        now,
        [step.task, random.whole(1, 30)],
        random.chance(component.nameless) ? 'nothing' : 'names',
      );
    }
    pass(step.median / (step.inner + 1));
    let longest = now;
    let failed: number | null = null;
    let over = false;
    for (const call of step.calls) {
      if (effect === 'astray' && call === step.calls.at(-1)) continue;
      const begin = call.together !== null ? now : Math.max(now, longest);
      const went = this.call(step, call, begin + 200, running, speaker);
      longest = Math.max(longest, went.end);
      if (call.together === null) now = Math.max(now, went.end);
      over ||= went.over;
      failed ??= went.failed;
      if (failed !== null || over) break;
    }
    now = Math.max(now, longest);
    if (over) return this.leave(lane, { end: now, failed: null, over: true });
    if (failed !== null) {
      pass(2 * MS);
      if (component.role !== 'door') speaker.says('fail', now, [step.task, `${failed}`], 'names', { level: 3 });
      else this.answered(speaker, at, now, step, failed);
      return this.leave(lane, { end: now, failed, over: false });
    }
    now = this.atTheEnd(effect, speaker, step, at, now);
    return this.leave(lane, { end: now, failed: null, over: false });
  }
  private leave(lane: { free: Micros[]; number: number }, went: Went): Went {
    lane.free[lane.number] = went.end;
    return went;
  }
  /** A thread or process that is free. */
  private lane(component: Component, host: Host, at: Micros): { free: Micros[]; number: number } {
    const place = `${component.name}@${host.name}`;
    let free = this.lanesFree.get(place);
    if (!free) this.lanesFree.set(place, (free = Array.from({ length: component.lanes.count }, () => 0)));
    const idle = free.flatMap((until, i) => (until <= at ? [i] : []));
    return { free, number: idle.length > 0 ? this.random.pick(idle) : this.random.whole(0, free.length - 1) };
  }

  private atTheDoor(effect: Effect | null, speaker: Speaker, at: Micros, step: Step): Went | null {
    const status = effect === 'too-large' ? 413 : effect === 'gone' ? 499 : null;
    if (status !== null) {
      speaker.running.cause.push(step.component);
      this.answered(speaker, at, at + this.random.whole(3, 40) * MS, step, status, true);
      return { end: at, failed: status, over: false };
    }
    if (step.component.layout !== 'access') speaker.says('receive', at, [step.task]);
    return null;
  }
  /** What a door says when the answer went out. */
  private answered(speaker: Speaker, from: Micros, to: Micros, step: Step, status: number, cause = false): void {
    const fields = { method: 'POST', path: `/${step.task}`, status };
    const level = status >= 500 ? 3 : status >= 400 ? 2 : 1;
    speaker.says('finish', to, [step.task, Math.round((to - from) / MS)], 'names', { level, fields, took: to - from, cause });
  }

  private atTheEnd(effect: Effect | null, speaker: Speaker, step: Step, from: Micros, at: Micros): Micros {
    const { random } = this;
    const { component } = step;
    let now = at + Math.round(random.around(step.median * 0.2, 0.4));
    const slow = effect === 'slow' || effect === 'slow-quietly' || effect === 'overrun';
    if (effect === 'network') {
      speaker.running.cause.push(component);
      now += Math.round(random.whole(SLOW_TIMES.least, SLOW_TIMES.most) * 150 * MS);
    }
    if (component.role === 'door') {
      this.answered(speaker, from, now, step, random.pick([200, 200, 201]), effect === 'network');
      return now;
    }
    if (component.role === 'jobs') {
      const rows = random.whole(900, 1100);
      const odd = effect === 'few-rows' || effect === 'rows-skipped';
      if (odd) speaker.running.cause.push(component);
      const [read, written] =
        effect === 'few-rows' ? [random.whole(3, 40), random.whole(1, 3)] : effect === 'rows-skipped' ? [rows, Math.round(rows * 0.6)] : [rows, rows];
      speaker.says('rows', now, [read, written], 'names', { cause: odd, fields: { rows_read: read, rows_written: written } });
    }
    const bounced = effect === 'bounced';
    if (bounced) speaker.running.cause.push(component);
    const text: Act = component.role === 'database' ? 'store' : 'finish';
    speaker.says(text, now, [step.task, Math.round((now - from) / MS)], 'names', {
      took: now - from,
      cause: slow || bounced,
      fields: component.role === 'worker' ? { status: bounced ? 'bounced' : 'sent' } : {},
    });
    return now;
  }

  private call(from: Step, call: Call, at: Micros, running: Running, speaker: Speaker): Went {
    const { random } = this;
    const { to } = call;
    const effect = running.struck === to ? running.fault!.effect : null;
    if (call.how === 'queued') return this.queued(call, at, running, speaker, effect);
    const tells = from.component.tellsCalls && from.component.layout !== 'access' && from.component.role !== 'database';
    const name = to.component.name;
    const ask = (when: Micros): void => void (tells && speaker.says('call', when, [name]));
    const waits = 5 * SECOND;
    ask(at);
    const blame = (...components: Component[]): void => void (running.cause.length === 0 && running.cause.push(...components));
    const mute = (when: Micros, cause: boolean, level = 2): void => speaker.says('noAnswer', when, [name, waits / MS], 'names', { level, cause });
    switch (effect) {
      case 'unreachable':
        blame(to.component, from.component);
        speaker.says('fail', at + 3 * MS, [name, 'ECONNREFUSED connection refused'], 'names', { level: 3, cause: true });
        return { end: at + 4 * MS, failed: 502, over: false };
      case 'timeout': {
        blame(to.component, from.component);
        this.step(to, at + 400, { ...running, struck: null, fault: null });
        mute(at + waits, true, 3);
        return { end: at + waits, failed: 504, over: false };
      }
      case 'timeout-retried':
        blame(to.component, from.component);
        mute(at + waits, true);
        speaker.says('again', at + waits + 10 * MS, [name, 2], 'names', { level: 2 });
        break;
      case 'tries-in-vain':
        blame(to.component, from.component);
        for (let i = 0; i < 3; i++) mute(at + waits * (i + 1), i === 0);
        speaker.says('giveUp', at + 3 * waits + 5 * MS, [name, 3], 'names', { level: 3 });
        return { end: at + 3 * waits + 6 * MS, failed: 504, over: false };
      case 'sql-retried':
        blame(to.component);
        new Speaker(this.voice, to.component, to.component.hosts[0]!, 0, running).says(
          'fail',
          at + 30 * MS,
          [to.task, 'SQLSTATE 40P01 deadlock detected'],
          'names',
          { level: 3, cause: true },
        );
        speaker.says('again', at + 60 * MS, [name, 2], 'names', { level: 2 });
        break;
      default:
        if (random.chance(0.015)) speaker.says('again', (at += 40 * MS), [name, 2], 'names', { level: 2 });
    }
    const begin = at + (effect === 'timeout-retried' ? waits + 20 * MS : effect === 'sql-retried' ? 80 * MS : random.whole(300, 3000));
    if (call.how === 'polled') for (let i = random.whole(1, 4); i > 0; i--) speaker.says('poll', begin - i * 20, [to.task]);
    const went = this.step(to, begin, running);
    if (went.over) return went;
    const back = went.end + random.whole(200, 2500);
    const soft = effect === 'soft';
    if (soft) blame(to.component, from.component);
    if (tells || soft)
      speaker.says('answer', back, [name, Math.round((back - at) / MS)], 'names', {
        took: back - at,
        cause: soft,
        fields: { result: soft ? random.pick(CODES) : went.failed !== null && went.failed !== 200 ? `${went.failed}` : 'OK' },
      });
    // what was turned down in good manners is not gone on with
    if (soft || (effect === 'refuse-quietly' && went.failed === 200)) return { end: back, failed: null, over: true };
    return { ...went, end: back };
  }

  private queued(call: Call, at: Micros, running: Running, speaker: Speaker, effect: Effect | null): Went {
    const before = running.names.get('message');
    this.give(running, this.world.links.get('message')!);
    const went = this.delivered(call, at, running, speaker, effect);
    // whoever sent it goes on with what it had
    if (before === undefined) running.names.delete('message');
    else running.names.set('message', before);
    return went;
  }
  private delivered(call: Call, at: Micros, running: Running, speaker: Speaker, effect: Effect | null): Went {
    const { random } = this;
    const { to } = call;
    const broker = this.world.components.find((one) => one.role === 'broker');
    const relay = broker && new Speaker(this.voice, broker, broker.hosts[0]!, 0, running);
    const queue = effect === 'misroute' ? `${inventedWord(random, 2)}.old` : call.queue;
    const first = speaker.component.role === 'door' ? relay : speaker;
    const caused = (component: Component): void => void running.cause.push(component);
    first?.says('hand', at, [to.task, queue], 'names', { cause: effect === 'lose' || (effect === 'misroute' && !relay) });
    let now = at + random.whole(500, 4000);
    if (relay && first !== relay) relay.says('take', now, [to.task, queue], 'names', { cause: effect === 'misroute', fields: { queue } });
    if (effect === 'lose' || effect === 'misroute') {
      caused(relay && effect === 'misroute' ? relay.component : speaker.component);
      if (relay && effect === 'lose') caused(relay.component);
      running.next.push(to.component);
      return { end: at + MS, failed: null, over: false };
    }
    now += effect === 'backlog' ? random.whole(40, 160) * SECOND : random.whole(2000, 60_000);
    if (effect === 'backlog') running.cause.push(to.component, ...(relay ? [relay.component] : []));
    const there = this.carried(call, running);
    const worker = new Speaker(this.voice, to.component, to.component.hosts[0]!, random.whole(0, to.component.lanes.count - 1), there);
    const take = (cause = false): void => worker.says('take', now, [to.task, call.queue], 'names', { cause, fields: { queue: call.queue } });
    take(effect === 'backlog');
    if (effect === 'poison') {
      caused(to.component);
      for (let i = 0; i < 3; i++) {
        now += random.whole(20, 900) * MS;
        worker.says('fail', now, [to.task, random.pick(REASONS)], 'names', {
          level: 3,
          cause: true,
          more: i === 0 ? stack(random, to.component, null) : [],
        });
      }
      worker.says('dead', now + 3 * MS, [to.task, `${call.queue}.dead`], 'names', { level: 2 });
      return { end: at + MS, failed: null, over: false };
    }
    if (effect === 'crash' || effect === 'crash-again') {
      caused(to.component);
      now += random.whole(20, 200) * MS;
      worker.says('crash', now, [to.component.name], 'nothing', { level: 3, cause: true });
      now += random.whole(2, 9) * SECOND;
      worker.says('start', now, [to.component.name, to.component.version], 'nothing');
      if (effect === 'crash') return { end: at + MS, failed: null, over: false };
      now += 500 * MS;
      take();
    }
    const once = this.step(to, now + MS, there);
    running.lastAt = Math.max(running.lastAt, once.end, there.lastAt);
    if (effect === 'twice') {
      caused(to.component);
      now = once.end + random.whole(100, 4000) * MS;
      take(true);
      running.lastAt = Math.max(running.lastAt, this.step(to, now + MS, there).end);
    }
    return { end: at + MS, failed: null, over: false };
  }

  /** What the other end of a queue knows. */
  private carried({ carries }: Call, running: Running): Running {
    const known = new Map(
      [...running.names].filter(([kind]) => kind === 'message' || carries === 'all' || (carries === 'numbers' && this.world.business.has(kind))),
    );
    return { ...running, names: known };
  }
}
