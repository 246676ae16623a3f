import type { Order } from '../flows/order.ts';
import type { Micros } from '../writing/times.ts';

/** A fault of the full day with a documented right answer. Each story is a module of its own; flows ask them on their way. */
export interface Story {
  number: number;
  title: string;
  /** The run of a job that this story changes. */
  job?(prefix: string, at: Micros): JobFault | null;
  /** When the order desk will be there again, if it is away at this moment. */
  away?(at: Micros): Micros | null;
  /** Whether an order's prescription is turned away at this moment. */
  check?(at: Micros, order: Order): 'blocked' | null;
  /** What the supplier of a frame answers in the body. */
  frame?(at: Micros, chance: number): 'withdrawn' | null;
  /** How many frames the order desk walks through for one. */
  catalogue?(at: Micros, shop: string): number | null;
  /** What happens to an order that reserves a blank at this moment. */
  reserve?(at: Micros, chance: number): ReserveFault | null;
  /** What happens to a surface that is computed at this moment. */
  surface?(at: Micros, order: Order): 'off the grid' | null;
  /** What happens to a message that is put into a queue at this moment. */
  queue?(at: Micros, queue: string, order: Order): 'lost' | 'poisoned' | null;
  /** How long a lens waits for a place in the coating machine. */
  coating?(at: Micros): Micros | null;
  /** What happens to a call that begins at this moment. */
  call?(at: Micros, chance: number): 'dropped-after-transfer' | null;
  /** How much longer a call rings before it is answered. */
  ring?(at: Micros, chance: number): Micros | null;
  /** When a file of orders that arrives now arrives once more. */
  again?(at: Micros): Micros | null;
  /** Calls of its own. */
  calls?: readonly StoryCall[];
  /** Lines of its own, each written once. */
  lines?: readonly Line[];
}
/** A line that no flow writes. */
export interface Line {
  at: Micros;
  path: string;
  text: string;
}
export interface StoryCall {
  at: Micros;
  course: 'handed-on' | 'one-way';
}
export interface JobFault {
  story: number;
  /** It begins that much later. */
  late?: Micros;
  /** It does not begin. */
  absent?: boolean;
  /** Its file is that of so long before. */
  older?: Micros;
  run?: string;
  rows?: number;
  /** Rows for which there is no price. */
  priceless?: number;
  /** Holds row locks that long. */
  holds?: Micros;
}
export interface ReserveFault {
  story: number;
  kind: 'lock-timeout';
  holderPid: number;
  xid: number;
}

/** The first story that has an answer, and the answer. */
export function asked<T>(stories: readonly Story[], ask: (story: Story) => T | null | undefined): { story: number; answer: T } | null {
  for (const story of stories) {
    const answer = ask(story);
    if (answer !== null && answer !== undefined) return { story: story.number, answer };
  }
  return null;
}
