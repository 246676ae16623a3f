import type { Logger } from 'pino';
import type { Database } from '../database/connect.ts';
import type { Guarded } from './access.ts';
import type { Happenings } from './happenings/happenings.ts';
import type { AnyEndpoint } from './http/endpoint.ts';
import type { Work } from './work/work.ts';

/** The database, for those who share its connections, and where it is for those who take one of their own. */
export interface Stored {
  db: Database;
  url: string;
}
/** What every room stands on. */
export interface Platform {
  /** All that is stored: reached with an access alone. */
  data: Guarded<Stored>;
  log: Logger;
  version: string;
  /** Folder for files that have arrived but are not read yet. */
  spool: string;
  happenings: Happenings;
  work: Work;
}

/** What a capability brings to the whole: a room is known by this door alone, and by what it hands to the rooms above it. */
export interface Room {
  /** Made for whoever asks. */
  endpoints: Guarded<readonly AnyEndpoint[]>;
  /** Called once when all rooms stand, in their order. */
  start?(): Promise<void>;
  /** Called when the server stops, in the opposite order. */
  close?(): Promise<void>;
}
