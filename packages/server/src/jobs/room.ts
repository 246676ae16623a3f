import type { Declared } from '../declared/room.ts';
import type { Evidence } from '../evidence/room.ts';
import { guarded, type Guarded } from '../platform/access.ts';
import type { Platform, Room } from '../platform/room.ts';
import { JobRepository } from './job-rows.ts';
import { jobRoutes } from './job-routes.ts';
import { JobService } from './jobs.ts';

/** What is special to jobs: schedules, runs beside each other, rows. */
export interface JobsRoom extends Room {
  jobs: Guarded<JobService>;
}
export function jobsRoom({ data }: Platform, { evidence }: Evidence, { declarations }: Declared): JobsRoom {
  const jobs = guarded((access) => new JobService(new JobRepository(data.by(access).db), declarations.by(access), evidence.by(access).identifiers));
  return { jobs, endpoints: guarded((access) => jobRoutes(jobs.by(access))) };
}
