import type { LiveRecords } from '@fadenweg/api';
import type { RecordRow } from '../evidence/record-layout.ts';
import type { Asked, Scanner } from '../find/scan.ts';
import type { Presenter } from '../strands/present.ts';
import { joined, type Arrival } from './arrivals.ts';

/** Records that one event tells at most. */
const MOST_TOLD = 600;
/** Time for looking through what came in, in milliseconds; then the rest is left. */
const BUDGET = 300;

/** What of some arrivals a search finds: all of it, or of very many as much as can be looked at in time. */
export class LiveSearch {
  constructor(
    private readonly scanner: Scanner,
    private readonly presenter: Presenter,
  ) {}

  async among(asked: Omit<Asked, 'from' | 'to' | 'order' | 'after' | 'ids'>, arrivals: readonly Arrival[]): Promise<LiveRecords> {
    const found: RecordRow[] = [];
    let [left, hidden] = [0, 0];
    const question: Asked = {
      ...asked,
      from: Math.min(...arrivals.map((one) => one.firstAt)),
      to: Math.max(...arrivals.map((one) => one.lastAt)) + 1,
      order: 'oldest',
      after: null,
      ids: joined(arrivals),
    };
    const end = await this.scanner.scan(question, BUDGET, {
      whole: true,
      hidden: () => hidden++,
      take(row) {
        if (found.length < MOST_TOLD) found.push(row);
        else left++;
        return true;
      },
    });
    const arrived = arrivals.reduce((sum, one) => sum + one.count, 0);
    return { items: await this.presenter.recordsOf(found), left, sampled: end !== null, hidden, arrived };
  }
}
