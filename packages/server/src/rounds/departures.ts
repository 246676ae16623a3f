import type { Departure, Departures } from '@fadenweg/api';
import type { Changes } from '../changes/changes.ts';
import type { ClockRepository } from '../evidence/clock-rows.ts';
import { cellDepartures } from './cell-departures.ts';
import type { JobService } from '../jobs/jobs.ts';
import type { FoundDepartures } from './found-departures.ts';
import { jobDepartures } from './job-departures.ts';
import { notedOf, shareOf, type NotedRepository } from './noted.ts';
import { otherDepartures } from './other-departures.ts';
import type { RoundsService } from './rounds.ts';
import type { Asked } from './window.ts';

/** What departs from the usual in a window, the gravest first; what is in hand or tolerated behind the others, unless it got worse. */
export class DeparturesService {
  constructor(
    private readonly rounds: RoundsService,
    private readonly found: FoundDepartures,
    private readonly clocks: ClockRepository,
    private readonly changes: Changes,
    private readonly noted: NotedRepository,
    private readonly jobs: JobService,
  ) {}

  async of(asked: Asked): Promise<Departures> {
    const [{ window, cloth }, labels] = await Promise.all([this.rounds.cloth(asked), this.rounds.labels()]);
    const known = { window, cloth, labels };
    const [{ items, more, nothingBefore }, others, jobs] = await Promise.all([
      this.found.of(asked, known),
      otherDepartures(this.clocks, this.changes, window, asked.environment),
      this.jobs.offSchedule(asked),
    ]);
    const ofJobs = jobDepartures(jobs, asked.zone);
    const all = [...items, ...cellDepartures(known, [...items, ...ofJobs]), ...ofJobs, ...others];
    const noted = await this.noted.of(all.map((one) => one.key));
    const now = Date.now() * 1000;
    for (const one of all) one.noted = notedOf(noted.get(one.key), { count: one.count, share: shareOf(one) }, now);
    return {
      items: all.sort((a, b) => Number(isSettled(a)) - Number(isSettled(b)) || b.weight - a.weight || (a.from < b.from ? -1 : 1)),
      more,
      nothingBefore,
    };
  }
}

const isSettled = ({ noted }: Departure): boolean => noted !== null && !noted.worse;
