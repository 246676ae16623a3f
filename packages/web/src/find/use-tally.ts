import type { LevelName, TimelinePart } from '@fadenweg/api';
import { onScopeDispose, ref, shallowRef, watch, type Ref } from 'vue';
import { api } from '../api/client.ts';
import type { Asked, BoundedAsked } from './use-find.ts';

export type Slot = Partial<Record<LevelName, number>>;
export interface Tally {
  from: number;
  slotMs: number;
  slots: Slot[];
  total: number;
  /** Out of sight, by the name of the quiet rule. */
  hidden: Record<string, number>;
}
const SLOTS = 120;
/** Windows from this length on have a picture by the minute, in milliseconds. */
const BY_MINUTE = 120 * 60_000;

/**
 * How what a search finds lies in time. Where everything is looked at, the sums by minute draw it at once; the exact counts come from the
 * latest back while the server goes through the records.
 */
export function useTally(asked: Ref<Asked | null>) {
  const tally = shallowRef<Tally | null>(null);
  const searched = ref(0);
  let running: AbortController | null = null;

  async function count(): Promise<void> {
    running?.abort();
    const now = asked.value;
    if (!now?.from || !now.to) {
      tally.value = null;
      return;
    }
    const mine = new AbortController();
    running = mine;
    searched.value = 0;
    const { from: begin, to, environment, sources, withoutSources, quiet } = now;
    try {
      const length = Date.parse(to) - Date.parse(begin);
      if (now.q === '' && length >= BY_MINUTE) {
        const whole = await api.get('/records/timeline', { query: { from: begin, to, slots: SLOTS, environment, sources, withoutSources } }, mine.signal); // prettier-ignore
        if (mine.signal.aborted) return;
        const slots = whole.slots.map((slot) => slot.counts);
        const total = slots.reduce((sum, slot) => sum + Object.values(slot).reduce((one, other) => one + other, 0), 0);
        tally.value = { from: Date.parse(whole.from), slotMs: whole.slotMs, slots, total, hidden: {} };
        if (quiet === 'show') {
          searched.value = 1;
          return;
        }
      }
      await exactly({ ...now, from: begin, to }, mine.signal);
    } catch {
      // the list beside it tells what went wrong with the same search
    }
  }

  async function exactly({ order: _order, ...now }: BoundedAsked, signal: AbortSignal): Promise<void> {
    const from = Date.parse(now.from);
    const slotMs = Math.max(1, Math.ceil((Date.parse(now.to) - from) / SLOTS));
    const slots: Slot[] = Array.from({ length: SLOTS }, () => ({}));
    const hidden: Record<string, number> = {};
    const overview = tally.value;
    let total = 0;
    for (let after: string | null = ''; after !== null;) {
      const part: TimelinePart = await api.get('/records/tally', { query: { ...now, slotMs, after } }, signal);
      if (signal.aborted) return;
      for (const { slot, counts } of part.slots) {
        const own = slots[slot];
        if (own) for (const [level, number] of Object.entries(counts) as [LevelName, number][]) own[level] = (own[level] ?? 0) + number;
      }
      for (const [rule, number] of Object.entries(part.hidden)) hidden[rule] = (hidden[rule] ?? 0) + number;
      total += part.total;
      after = part.next;
      // the picture by the minute stays until the exact one is whole
      const whole = overview && now.q === '' && after !== null ? { ...overview, total, hidden } : { from, slotMs, slots: [...slots], total, hidden };
      tally.value = { ...whole, hidden: { ...hidden } };
      searched.value = part.searched;
    }
  }

  watch(asked, (now, before) => JSON.stringify(now) !== JSON.stringify(before) && void count(), { immediate: true });
  onScopeDispose(() => running?.abort());
  return { tally, searched, again: count };
}
