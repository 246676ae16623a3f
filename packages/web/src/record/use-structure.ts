import { partsOfMessage, type Part } from '@fadenweg/core/structure';
import { onScopeDispose, shallowRef, watch, type Ref } from 'vue';
import type { StructureAsked, StructureTold } from './structure.worker.ts';

/** Shorter texts are done at once. */
const SHORT = 20_000;

/** One worker for all, which has warmed up by the time that a long text comes. */
let worker: Worker | null = null;
let asked = 0;
const waiting = new Map<number, (parts: Part[]) => void>();
function started(): Worker {
  if (worker) return worker;
  worker = new Worker(new URL('./structure.worker.ts', import.meta.url), { type: 'module' });
  worker.onmessage = ({ data }: MessageEvent<StructureTold>) => {
    const take = waiting.get(data.number);
    waiting.delete(data.number);
    take?.(data.parts);
  };
  return worker;
}

/** What a message is made of; null while it is worked out. */
export function useStructure(text: Ref<string | null>) {
  const parts = shallowRef<Part[] | null>(null);
  let own = 0;
  started();
  watch(
    text,
    (now) => {
      waiting.delete(own);
      if (now === null || now.length <= SHORT) {
        parts.value = now === null ? null : partsOfMessage(now);
        return;
      }
      parts.value = null;
      own = ++asked;
      waiting.set(own, (found) => (parts.value = found));
      started().postMessage({ number: own, text: now } satisfies StructureAsked);
    },
    { immediate: true },
  );
  onScopeDispose(() => waiting.delete(own));
  return parts;
}
