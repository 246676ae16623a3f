import type { Random } from '../writing/random.ts';
import type { Micros } from '../writing/times.ts';
import type { Fault } from './faults.ts';
import type { Said } from './said.ts';
import type { Component, Flow, Host, Step } from './types.ts';
import { filled, inventedWord, type Act } from './words.ts';

/** A transaction under way. */
export interface Running {
  number: number;
  flow: Flow;
  leg: number;
  names: Map<string, string>;
  /** Values of its own that records tell. */
  own: Set<string>;
  fault: Fault | null;
  /** The step that it strikes. */
  struck: Step | null;
  /** Where the cause shows, and who should have spoken next. */
  cause: Component[];
  next: Component[];
  lastAt: Micros;
}
/** How a step went: until when, and whether it failed (with the status that a caller sees). */
export interface Went {
  end: Micros;
  failed: number | null;
  /** Nothing more comes of it. */
  over: boolean;
}
/** Codes that a partner or a rule gives for what it does not like. */
export const CODES = ['E-104', 'R17', 'NOK', '4711', 'X_LIMIT', 'W31'];
export const REASONS = [
  'index 37 out of range',
  'no rate for zone 9',
  'field sum is empty',
  'value 0 not allowed',
  'unexpected end of input',
  'negative quantity',
];

/** Where all that is said comes together. */
export class Voice {
  readonly said: Said[] = [];
  put(said: Omit<Said, 'order'>): void {
    this.said.push({ ...said, order: this.said.length });
  }
  /** One logger after the other. */
  logger({ loggers }: Component): string {
    return loggers[this.said.length % loggers.length]!;
  }
}

interface More {
  level?: number;
  cause?: boolean;
  fields?: Record<string, string | number>;
  more?: readonly string[];
  took?: Micros;
}
/** Who speaks for a transaction: a component on a host, by one of its threads. */
export class Speaker {
  constructor(
    private readonly voice: Voice,
    readonly component: Component,
    private readonly host: Host,
    private readonly lane: number,
    readonly running: Running,
  ) {}

  says(
    act: Act,
    at: Micros,
    values: readonly (string | number)[],
    what: 'names' | 'nothing' = 'names',
    { level = 1, cause = false, fields = {}, more = [], took }: More = {},
  ): void {
    const { component, running } = this;
    // there is nothing in its log but what it answered
    if (component.layout === 'access' && act !== 'finish') return;
    running.lastAt = Math.max(running.lastAt, at);
    const names = new Map<string, string>();
    if (what === 'names') for (const [kind, value] of running.names) if (component.names.has(kind)) names.set(kind, value);
    this.voice.put({
      component,
      host: this.host,
      at,
      level,
      text: filled(component.phrases[act], ...values),
      logger: this.voice.logger(component),
      lane: this.lane,
      names,
      fields,
      more,
      took: took ?? null,
      of: running.number,
      leg: running.leg,
      cause,
    });
  }
}

/** What a program prints of its calls. */
export function stack(random: Random, component: Component, inner: string | null): string[] {
  const own = component.loggers[0]!;
  const frames = Array.from(
    { length: random.whole(2, 6) },
    () => `\tat ${own}.${inventedWord(random, 2)}(${inventedWord(random, 1)}:${random.whole(10, 900)})`,
  );
  return inner === null ? frames : [...frames, `Caused by: ${own}Exception: ${inner}`, ...frames.slice(0, 2)];
}
