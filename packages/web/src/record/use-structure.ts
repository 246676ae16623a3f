import { partsOfMessage, unflattened, type Part } from '@fadenweg/core';
import { onScopeDispose, shallowRef, watch, type Ref } from 'vue';
import type { FlatPart, StructureAsked, StructureTold } from './structure.worker.ts';

/** Shorter texts are done at once. */
const SHORT = 20_000;

function whole(part: FlatPart): Part {
  if (!('tree' in part)) return part;
  const { tree, ...rest } = part;
  return { ...rest, root: unflattened(tree) };
}

/** What a message is made of; null while it is worked out. */
export function useStructure(text: Ref<string | null>) {
  const parts = shallowRef<Part[] | null>(null);
  let worker: Worker | null = null;
  let number = 0;
  watch(
    text,
    (now) => {
      number++;
      if (now === null || now.length <= SHORT) {
        parts.value = now === null ? null : partsOfMessage(now);
        return;
      }
      parts.value = null;
      worker ??= new Worker(new URL('./structure.worker.ts', import.meta.url), { type: 'module' });
      worker.onmessage = ({ data }: MessageEvent<StructureTold>) => {
        if (data.number === number) parts.value = data.parts.map(whole);
      };
      worker.postMessage({ number, text: now } satisfies StructureAsked);
    },
    { immediate: true },
  );
  onScopeDispose(() => worker?.terminate());
  return parts;
}
