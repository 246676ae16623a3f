import type { Iso, LogRecord } from './index.ts';

/** A file or a folder whose files are read as they grow. */
export interface FollowInfo {
  id: number;
  /** On the server's machine, from the root on. */
  path: string;
  environment: string;
  zone: string;
  who: string;
  since: Iso;
  importId: number;
  /** Files seen so far. */
  files: number;
  /** When one of them last grew. */
  grewAt: Iso | null;
  /** Why it cannot be followed at the moment; it is tried again. */
  problem: string | null;
}
export interface FollowBody {
  path: string;
  environment: string;
  zone: string;
  /** A person says that this is the zone: it is not guessed at. */
  stated?: boolean;
}

/** Event `records` of a live search: what has come in since the event before. */
export interface LiveRecords {
  /** In order of time. */
  items: LogRecord[];
  /** Found, but not among the items: too many came at once. */
  left: number;
  /** There may be more of them: so many came that not all were looked at. */
  sampled: boolean;
  /** Found, and kept out of sight by quiet rules. */
  hidden: number;
  /** Records that came in at all. */
  arrived: number;
}
/** Event `gap`: what came in meanwhile cannot be told any more; a search shows it. */
export interface LiveGap {
  why: 'restarted' | 'too-late';
}
/** Event `strand`: a strand has changed; or `woven`: some have. */
export interface LiveStrand {
  id: string;
  records: number;
  outcome: string;
}
