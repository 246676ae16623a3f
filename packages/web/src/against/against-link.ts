import type { AgainstWhat } from '@fadenweg/api';
import type { InjectionKey } from 'vue';
import type { LocationQuery, RouteLocationRaw } from 'vue-router';

const HALF_A_DAY = 43_200_000;

/** When the strand began beside which names stand: they are compared around that time. */
export const AROUND: InjectionKey<() => string | null> = Symbol('around');

/**
 * Leads to the page that sets a thing against all others.
 *
 * @param at where given, half a day to both sides of it; else the window that is looked at
 */
export function againstLink(
  { what, name, of = '' }: { what: AgainstWhat; name: string; of?: string },
  { e, w }: LocationQuery,
  at: string | null = null,
): RouteLocationRaw {
  const around = at === null ? w : [-HALF_A_DAY, HALF_A_DAY].map((by) => new Date(Date.parse(at) + by).toISOString()).join('~');
  return { name: 'against', query: { what, name, of: of || undefined, e, w: around } };
}
