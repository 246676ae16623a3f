import type { JobRun, JobRuns } from '@fadenweg/api';

/** A run as a thread: where it begins and ends on the page, and in which of a job's tracks. */
export interface RunThread {
  run: JobRun;
  y1: number;
  y2: number;
  track: number;
}
export interface JobLane {
  flow: string;
  label: string;
  threads: RunThread[];
  /** Where runs were due that did not start. */
  missed: number[];
}
/** A short run is still to be seen. */
const SHORTEST = 3;
const MOST_TRACKS = 3;

/** Runs of jobs side by side, time running down. @param from milliseconds @param height of the window, in pixels */
export function threadsOf(jobs: readonly JobRuns[], from: number, to: number, height: number): JobLane[] {
  const y = (iso: string): number => ((Math.min(to, Math.max(from, Date.parse(iso))) - from) / Math.max(1, to - from)) * height;
  return jobs.map(({ flow, label, runs, missed }) => {
    const ends: number[] = [];
    const threads = runs.map((run): RunThread => {
      const [begin, end] = [Date.parse(run.startedAt), Date.parse(run.endedAt)];
      const free = ends.findIndex((one) => one <= begin);
      const track = free >= 0 ? free : Math.min(MOST_TRACKS - 1, ends.length);
      ends[track] = end;
      const y1 = y(run.startedAt);
      return { run, y1, y2: Math.max(y1 + SHORTEST, y(run.endedAt)), track };
    });
    return { flow, label, threads, missed: missed.map(y) };
  });
}
