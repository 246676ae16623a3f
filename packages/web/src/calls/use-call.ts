import type { Strand } from '@fadenweg/api';
import type { Ref } from 'vue';
import { api } from '../api/client.ts';
import { useRequest } from '../api/use-request.ts';

/** All there is to say of a strand as a call; null where it is none. */
export function useCall(strand: Ref<Strand | null>) {
  return useRequest(
    () => (strand.value?.call ? `${strand.value.id} ${strand.value.records}` : ''),
    async (signal) => {
      const now = strand.value;
      return now?.call ? ((await api.get('/strands/{id}/call', { params: { id: now.id } }, signal)) ?? null) : null;
    },
  );
}
