import type { Micros } from '../writing/times.ts';
import type { Form, Spelling } from './forms.ts';
import type { Act } from './words.ts';

export interface Host {
  name: string;
  address: string;
  /** How far its clock is ahead, from when on; in order of time. */
  clock: { from: Micros; ahead: Micros; drift: number }[];
}

export type Layout = 'json' | 'logfmt' | 'text' | 'syslog5424' | 'syslog3164' | 'csv' | 'xml' | 'access' | 'database';

/** How a component writes the identifier of one kind. */
export interface Naming {
  key: string;
  spelling: Spelling;
}
export interface Component {
  name: string;
  role: 'door' | 'service' | 'database' | 'broker' | 'worker' | 'jobs' | 'partner';
  /** Instances, each with its log. */
  hosts: Host[];
  layout: Layout;
  time: TimeLayout;
  /** What its levels are called: fine, info, warning, error; null where it writes none. */
  levels: readonly string[] | null;
  /** Threads or processes at work, and how they are called. */
  lanes: { count: number; name: string; pids: number };
  phrases: Record<Act, string>;
  /** By kind, how it is written; what is missing is never written here. */
  names: Map<string, Naming>;
  /** How identifiers stand in its texts. */
  inline: 'before' | 'behind' | 'brackets' | 'bare';
  /** Columns of its heads and what parts them, for texts. */
  head: { order: readonly ('time' | 'level' | 'lane' | 'logger')[]; brackets: string; separator: string };
  /** Lines between begin and end that name nothing but what their thread does. */
  nameless: number;
  /** It tells when it asks another one, and when the answer came. */
  tellsCalls: boolean;
  loggers: readonly string[];
  version: string;
}
export interface TimeLayout {
  text(at: Micros): string;
  /** Microseconds that it tells apart. */
  grain: Micros;
}

/** What is done for a transaction in one place. */
export interface Step {
  id: string;
  component: Component;
  /** What is done, a word. */
  task: string;
  /** Usual length of its own work. */
  median: Micros;
  calls: Call[];
  /** A business number is born here. */
  bears: string | null;
  /** A link that is born here and handed to those it calls. */
  refers: string | null;
  inner: number;
}
export interface Call {
  how: 'answered' | 'queued' | 'polled';
  /** Those with the same number are under way together; null for one by itself. */
  together: number | null;
  /** Name of the queue. */
  queue: string;
  /** Over a queue: what goes along besides the message's own number. */
  carries: 'all' | 'numbers' | 'nothing';
  to: Step;
}
export interface Flow {
  name: string;
  /** Kind of the number that it is asked for by. */
  kind: string;
  root: Step;
  weight: number;
  /** Whoever asks brings the number along; else it is born on the way. */
  brought: boolean;
  /** What may come later with the same number: a question, a call back. */
  later: { root: Step; share: number; after: Micros; always: boolean } | null;
}

export interface ChanceWorld {
  seed: number;
  components: Component[];
  hosts: Host[];
  flows: Flow[];
  /** Forms of business numbers, links and parties by kind. */
  business: Map<string, Form>;
  /** By name; `request` and `message` among them. */
  links: Map<string, Form>;
  party: Form;
  from: Micros;
  to: Micros;
  language: string;
}
