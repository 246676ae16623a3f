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
export function became(
  { truth }: OpenTruth,
  outcome: string,
  story: number | null,
  cause: Omit<NonNullable<Truth['cause']>, 'record'>,
  next?: readonly string[],
): void {
  const { failedIn, component, accepted } = cause;
  Object.assign(truth, { outcome, story, cause: { failedIn, component, record: null, accepted }, ...(next && { next }) });
}

/** An identifier of a strand, unless what names it is not written. */
export function named(sink: Sink, { truth }: OpenTruth, kind: string, value: string): void {
  if (sink !== silent) truth.identifiers.push({ kind, value });
}
