import type { LevelName, TimelinePart } from '@fadenweg/api';
import { onScopeDispose, ref, shallowRef, watch, type Ref } from 'vue';
import { api, query } from '../api/client.ts';
import type { Asked } from './use-find.ts';

export type Slot = Partial<Record<LevelName, number>>;
export interface Tally {
  from: number;
  slotMs: number;
  slots: Slot[];
  total: number;
}
const SLOTS = 120;

/** How what a search finds lies in time, filled from the latest back while the server goes through it. */
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
    const from = Date.parse(now.from);
    const slotMs = Math.max(1, Math.ceil((Date.parse(now.to) - from) / SLOTS));
    const slots: Slot[] = Array.from({ length: SLOTS }, () => ({}));
    let total = 0;
    searched.value = 0;
    const { q, environment } = now;
    try {
      for (let after: string | null = ''; after !== null;) {
        const part: TimelinePart = await api.get<TimelinePart>(
          `/records/tally${query({ q, environment, from: now.from, to: now.to, slotMs, after })}`,
          mine.signal,
        );
        if (mine.signal.aborted) return;
        for (const { slot, counts } of part.slots) {
          const own = slots[slot];
          if (own) for (const [level, number] of Object.entries(counts) as [LevelName, number][]) own[level] = (own[level] ?? 0) + number;
        }
        total += part.total;
        tally.value = { from, slotMs, slots: [...slots], total };
        searched.value = part.searched;
        after = part.next;
      }
    } catch {
      // the list beside it tells what went wrong with the same search
    }
  }
  watch(asked, (now, before) => JSON.stringify(now) !== JSON.stringify(before) && void count(), { immediate: true });
  onScopeDispose(() => running?.abort());
  return { tally, searched };
}
