import type { Logger } from 'pino';
import type { Database } from '../database/connect.ts';
import type { Happenings } from './happenings/happenings.ts';
import type { AnyEndpoint } from './http/endpoint.ts';
import type { Work } from './work/work.ts';

/** What every room stands on. */
export interface Platform {
  databaseUrl: string;
  db: Database;
  log: Logger;
  version: string;
  /** Folder for files that have arrived but are not read yet. */
  spool: string;
  happenings: Happenings;
  work: Work;
}

/** What a capability brings to the whole: a room is known by this door alone, and by what it hands to the rooms above it. */
export interface Room {
  endpoints: readonly AnyEndpoint[];
  /** Called once when all rooms stand, in their order. */
  start?(): Promise<void>;
  /** Called when the server stops, in the opposite order. */
  close?(): Promise<void>;
}
