import type { WorkInfo } from '@fadenweg/api';

/** Parts of the list, and the states that each shows. */
export const WORK_LISTS = {
  now: { label: 'Now', states: 'running,waiting,failed' },
  ended: { label: 'Ended', states: 'done,cancelled' },
} as const;
export type WorkList = keyof typeof WORK_LISTS;

const ORDER: readonly WorkInfo['state'][] = ['failed', 'running', 'waiting', 'done', 'cancelled'];
const hasEnded = ({ state }: WorkInfo): boolean => state === 'done' || state === 'cancelled';
/** What failed first, then what runs, then what waits, the soonest first; what ended, the latest first. */
export const inOrder = (rows: readonly WorkInfo[]): WorkInfo[] =>
  rows.toSorted((a, b) => {
    if (hasEnded(a) && hasEnded(b)) return Date.parse(b.endedAt ?? b.madeAt) - Date.parse(a.endedAt ?? a.madeAt);
    return ORDER.indexOf(a.state) - ORDER.indexOf(b.state) || (a.state === 'waiting' ? Date.parse(a.dueAt) - Date.parse(b.dueAt) : 0);
  });

/** How a piece stands, in a few words. */
export function stateWords(one: Pick<WorkInfo, 'state' | 'share' | 'tries' | 'dueAt'>, now: number): string {
  switch (one.state) {
    case 'running':
      return one.share === null ? 'runs' : `runs, ${Math.round(one.share * 100)} %`;
    case 'waiting': {
      const seconds = Math.ceil((Date.parse(one.dueAt) - now) / 1000);
      const when = seconds <= 1 ? 'its turn' : seconds < 120 ? `${seconds} s` : `${Math.round(seconds / 60)} min`;
      return one.tries > 0
        ? `tried ${times(one.tries)}, again in ${seconds <= 1 ? 'a moment' : when}`
        : seconds <= 1
          ? `waits for ${when}`
          : `in ${when}`;
    }
    case 'failed':
      return `failed after ${times(one.tries, 'try', 'tries')}`;
    case 'done':
      return 'done';
    case 'cancelled':
      return 'cancelled';
  }
}
const times = (count: number, one = 'time', many = 'times'): string => `${count} ${count === 1 ? one : many}`;
