import { silent } from '../writing/sink.ts';
import type { OpenTruth, Sink, Truth } from '../writing/sink.ts';

/** An order on its way; its truth is still open. */
export interface Order {
  id: string;
  trace: string;
  shop: string;
  kind: 'standard' | 'rush';
  material: string;
  /** Prism of the prescription in dioptres, 0 for none. */
  prism: number;
  thread: string;
  open: OpenTruth;
}

/** What really became of a strand, and why. */
export function became({ truth }: OpenTruth, outcome: string, story: number | null, cause: Omit<NonNullable<Truth['cause']>, 'record'>): void {
  Object.assign(truth, { outcome, story, cause: { failedIn: cause.failedIn, component: cause.component, record: null, accepted: cause.accepted } });
}

/** An identifier of a strand, unless what names it is not written. */
export function named(sink: Sink, { truth }: OpenTruth, kind: string, value: string): void {
  if (sink !== silent) truth.identifiers.push({ kind, value });
}
