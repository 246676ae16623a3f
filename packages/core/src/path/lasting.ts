import type { Microseconds } from '../units.ts';
import { MARK } from './marks.ts';
import type { StrandRecord } from './types.ts';

type Lasts = Pick<StrandRecord, 'at' | 'took' | 'marks'>;

/** When what a record tells of began. */
export const beginOf = ({ at, took, marks }: Lasts): Microseconds => (took > 0 && !(marks & MARK.begins) ? at - took : at);
/** When it ended. */
export const endOf = ({ at, took, marks }: Lasts): Microseconds => (took > 0 && marks & MARK.begins ? at + took : at);
/** Whether it stands at the begin of what took a while. */
export const standsAtBegin = ({ took, marks }: Lasts): boolean => took > 0 && (marks & MARK.begins) !== 0;
