import type { FaultDetail } from '@fadenweg/api';

/** A component that strands of a fault, or those that end well, pass. */
export interface WayRow {
  component: string;
  /** Strands of the fault that pass it; null where only those that end well do. */
  passed: number | null;
  usual: boolean;
  /** Where the error comes from. */
  here: boolean;
}

/** The components that strands of a fault pass, beside those of the usual way and in its order: others stand behind what they follow. */
export function wayRows({ ways, usualWay, component }: Pick<FaultDetail, 'ways' | 'usualWay' | 'component'>): WayRow[] {
  const passed = new Map<string, number>();
  for (const { components, strands } of ways) for (const name of new Set(components)) passed.set(name, (passed.get(name) ?? 0) + strands);
  const order = [...usualWay];
  for (const { components } of ways)
    for (const [i, name] of components.entries()) {
      if (order.includes(name)) continue;
      const before = components.slice(0, i).findLast((one) => order.includes(one));
      order.splice(before === undefined ? 0 : order.indexOf(before) + 1, 0, name);
    }
  return order.map((name) => ({ component: name, passed: passed.get(name) ?? null, usual: usualWay.includes(name), here: name === component }));
}
