import type { RecordInFull, TextPlace, WrittenPlaces } from '@fadenweg/api';
import type { Trace, TraceFrame } from '@fadenweg/core/structure';
import { computed, type ComputedRef, type Ref } from 'vue';
import { api } from '../api/client.ts';
import { useRequest } from '../api/use-request.ts';

const MOST_FRAMES = 500;
const LONGEST_MESSAGE = 4000;

export interface WrittenBy {
  places: Ref<WrittenPlaces | null | undefined>;
  placeOf(frame: TraceFrame): TextPlace | null;
  /** Packages and folders of the calls that are registered. */
  ownUnits: ComputedRef<string[]>;
}

/** Where in registered source texts the calls of a record's traces stand, and the line that wrote it. */
export function useWritten(record: Ref<RecordInFull | null | undefined>, traces: ComputedRef<readonly Trace[]>): WrittenBy {
  const frames = computed(() => traces.value.flatMap((trace) => trace.thrown.flatMap((one) => one.frames)).slice(0, MOST_FRAMES));
  const { answer } = useRequest([() => record.value?.id, () => frames.value.length], async (signal) => {
    const own = record.value;
    if (!own || (frames.value.length === 0 && own.logger === '')) return null;
    const asked = frames.value.map(({ code, unit, file, line }) => ({ code, unit, file, line }));
    const { component, host, environment, at, logger, message } = own;
    const body = { component, host, environment, at, logger, message: message.slice(0, LONGEST_MESSAGE), frames: asked };
    return { asked: frames.value, places: await api.post('/source-texts/places', { body }, signal) };
  });
  const placeOf = (frame: TraceFrame): TextPlace | null => answer.value?.places.frames[answer.value.asked.indexOf(frame)] ?? null;
  return {
    placeOf,
    ownUnits: computed(() => [...new Set(frames.value.filter((frame) => frame.unit !== '' && placeOf(frame)).map((frame) => frame.unit))]),
    places: computed(() => answer.value?.places),
  };
}
