import type { Change, ChangeKind, Page } from '@fadenweg/api';
import type { Ref } from 'vue';
import { api } from '../api/client.ts';
import { useRequest } from '../api/use-request.ts';

export interface ChangesAsked {
  from?: string;
  to?: string;
  environment?: string;
  component?: string;
}
/** Shown at once, the earliest of the window. */
export const MOST_CHANGES = 500;
export const CHANGE_WORDS: Record<ChangeKind, string> = {
  version: 'version',
  setting: 'setting',
  restart: 'restart',
  start: 'start',
  stop: 'stop',
  'fail-over': 'fail-over',
  deployment: 'deployment',
  registered: 'registered',
};

/** What changed in a window; nothing while it is not known which. */
export const useChanges = (asked: Ref<ChangesAsked | null>) =>
  useRequest<Page<Change>>([() => JSON.stringify(asked.value)], (signal) =>
    asked.value ? api.get('/changes', { query: { ...asked.value, limit: MOST_CHANGES } }, signal) : Promise.resolve({ items: [], next: null }),
  );
