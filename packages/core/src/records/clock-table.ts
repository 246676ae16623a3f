import { shiftAt } from '../clocks/shift.ts';
import type { ClockSpan } from '../clocks/types.ts';
import type { Duration, Microseconds } from '../units.ts';
import type { AmissClock } from './types.ts';

/** Clocks that are amiss, looked up record by record: the host's own, or the component's where no host is known. */
export class ClockTable {
  private readonly byHost = new Map<string, ClockSpan[]>();
  private readonly byComponent = new Map<string, ClockSpan[]>();

  constructor(clocks: readonly AmissClock[]) {
    for (const { host, component, spans } of clocks) {
      if (host === '') this.byComponent.set(component, spans);
      else this.byHost.set(host, spans);
    }
  }

  /** What has to be added to a time as it was written. */
  shift(host: string, component: string, at: Microseconds): Duration {
    const spans = host === '' ? this.byComponent.get(component) : this.byHost.get(host);
    return spans ? shiftAt(spans, at) : 0;
  }
}
