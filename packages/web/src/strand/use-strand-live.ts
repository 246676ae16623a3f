import type { LiveStrand, Strand } from '@fadenweg/api';
import { onScopeDispose, watch, type Ref } from 'vue';
import { useSaid } from '../share/use-share.ts';
import { OUTCOME_WORDS } from '../glyphs/outcomes.ts';
import { count } from '../time/format.ts';

/** Fetches a strand again when it has grown or is judged otherwise. */
export function useStrandLive(id: Ref<string | null>, strand: Ref<Strand | null>, again: () => Promise<void>): void {
  const said = useSaid();
  let stream: EventSource | null = null;
  const close = (): void => {
    stream?.close();
    stream = null;
  };
  watch(
    id,
    (now) => {
      close();
      if (now === null) return;
      stream = new EventSource(`/api/live/strands/${encodeURIComponent(now)}`);
      stream.addEventListener('strand', (event) => {
        const told = JSON.parse((event as MessageEvent<string>).data) as LiveStrand;
        const shown = strand.value;
        if (!shown || (told.id === shown.id && told.records === shown.records && told.outcome === shown.outcome)) return;
        if (told.records > shown.records)
          said.say(`${count(told.records - shown.records)} more records; it is ${OUTCOME_WORDS[told.outcome as Strand['outcome']]}`);
        void again();
      });
    },
    { immediate: true },
  );
  onScopeDispose(close);
}
