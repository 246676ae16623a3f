import type { WorkState } from '@fadenweg/api';

/** One piece of work, as it stands in the database. */
export interface WorkRow {
  id: number;
  kind: string;
  /** What it is for: of one kind, at most one piece waits for each of these. */
  about: string;
  /** Why it is to be done, in words. */
  why: string;
  who: string;
  args: unknown;
  state: WorkState;
  made_at: Date;
  due_at: Date;
  started_at: Date | null;
  ended_at: Date | null;
  /** How often it was begun. */
  tries: number;
  /** How much of it is done, 0 to 1; null where that is not known. */
  share: number | null;
  /** What it does at the moment. */
  doing: string | null;
  /** What went wrong the last time. */
  error: string | null;
}

/** A piece that is being done. */
export interface Piece<Args> {
  id: number;
  about: string;
  /** May be changed: a further try is given what they are then. */
  args: Args;
  who: string;
  /** Raised when it is cancelled or the server stops; what is done in steps ends behind one of them. */
  signal: AbortSignal;
  /** Says what is being done, and how much of it is. */
  tell(doing: string, share?: number | null): void;
}

/** Thrown by a piece that cannot be done yet: it is put back for a while, and nothing is amiss. */
export class Later extends Error {
  constructor(readonly after: number) {
    super('it waits');
  }
}

/** A kind of work: pieces of one kind are done one after the other. */
export interface WorkKind<Args> {
  name: string;
  /** What it is called where it is shown. */
  label: string;
  run(piece: Piece<Args>): Promise<void>;
  /** What waits already, and what is asked besides: one piece does both. Without it the newer one counts. */
  merge?(waiting: Args, more: Args): Args;
  /** What is left to do of a piece that a dead process had, or had not begun: what was only in its memory is gone. */
  afterStop?(args: Args): Args;
  /** After so many failures in a row it is left, and told to be so. */
  mostTries?: number;
  /** Done by the clock as well: a cron expression, and the zone in which it is meant. */
  schedule?: { at: string; zone: string; why: string; args: Args };
}

export interface Asking<Args> {
  about?: string;
  why: string;
  who: string;
  args: Args;
  /** Not before so many milliseconds have passed; what waits already is not put off by it. */
  after?: number;
}
