import type { StrandSummary } from '@fadenweg/api';
import { useDocumentVisibility, useThrottleFn } from '@vueuse/core';
import { onScopeDispose, ref, watch, type Ref } from 'vue';

/** Asked for again no more often, in milliseconds. */
const OFTEN = 1500;
/** What has changed is marked for so long. */
const MARKED = 6000;

/** Asks for a list of strands again when they may have changed; while it is being read further down it stays, and says that there is more. */
export function useStrandsLive(on: Ref<boolean>, items: Ref<StrandSummary[]>, isBeingRead: () => boolean, again: () => Promise<void>) {
  /** Something has changed that is not shown yet. */
  const waiting = ref(false);
  const fresh = ref(new Set<string>());
  const visible = useDocumentVisibility();
  let stream: EventSource | null = null;
  let timer: ReturnType<typeof setTimeout> | undefined;

  async function show(): Promise<void> {
    waiting.value = false;
    const before = new Map(items.value.map((one) => [one.id, `${one.outcome} ${one.records}`]));
    await again();
    if (before.size === 0) return;
    fresh.value = new Set(items.value.filter((one) => before.get(one.id) !== `${one.outcome} ${one.records}`).map((one) => one.id));
    clearTimeout(timer);
    timer = setTimeout(() => (fresh.value = new Set()), MARKED);
  }
  const changed = useThrottleFn(
    () => {
      if (isBeingRead() || visible.value === 'hidden') waiting.value = true;
      else void show();
    },
    OFTEN,
    true,
  );
  watch(visible, (now) => {
    if (now === 'visible' && waiting.value && !isBeingRead()) void show();
  });
  const close = (): void => {
    stream?.close();
    stream = null;
    waiting.value = false;
  };
  watch(
    on,
    (now) => {
      close();
      if (!now) return;
      stream = new EventSource('/api/live/strands');
      stream.addEventListener('strands', () => void changed());
      // what changed while it was cut off is not told
      stream.addEventListener('begin', () => void changed());
    },
    { immediate: true },
  );
  onScopeDispose(() => {
    close();
    clearTimeout(timer);
  });
  return { waiting, fresh, show };
}
