import type { Iso } from './index.ts';

export type WorkState = 'waiting' | 'running' | 'failed' | 'done' | 'cancelled';

/** A piece of work in the background. */
export interface WorkInfo {
  id: number;
  /** Of its kind, stable: `weave`, `read-again` … */
  kind: string;
  label: string;
  /** What it is for, '' where there is only one of its kind. */
  about: string;
  why: string;
  who: string;
  state: WorkState;
  madeAt: Iso;
  /** Not begun before. */
  dueAt: Iso;
  startedAt: Iso | null;
  endedAt: Iso | null;
  tries: number;
  /** 0 to 1; null where it is not known. */
  share: number | null;
  doing: string | null;
  /** What went wrong the last time. */
  error: string | null;
}

/** What an import that is not done waits for. */
export interface WaitsFor {
  /** The piece of work; null where it is the reading of sources. */
  work: number | null;
  words: string;
  /** It stopped, and goes on when somebody tries it again. */
  stopped: boolean;
}
