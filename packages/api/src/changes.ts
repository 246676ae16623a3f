import type { Iso } from './index.ts';
import type { ChangeKind } from '@fadenweg/core/changes';

export type { ChangeKind };

/** A version, a setting, a restart, a fail-over: told by a record, or registered by somebody. */
export interface Change {
  /** Of the record that tells, or `registered-N`. */
  id: string;
  kind: ChangeKind;
  at: Iso;
  /** '' where it concerns a host, or everything. */
  component: string;
  host: string;
  /** '' for what was registered without one: it concerns each. */
  environment: string;
  /** A setting's name, or the product whose version it is. */
  subject: string;
  before: string;
  after: string;
  /** In a few words. */
  words: string;
  /** First line of the record, or what was registered. */
  text: string;
  record: string | null;
  /** Who registered it. */
  by: string | null;
}
/** The change before a finding that may be its reason. */
export interface NearestChange extends Pick<Change, 'id' | 'kind' | 'at' | 'component' | 'host' | 'words' | 'record'> {
  /** How much more likely the same finding is since, as a factor of the odds; null where nothing is known of before or since. */
  likelier: number | null;
  /** Beyond chance. */
  sure: boolean;
  /** Strands of the flow with the same finding, and all of them, before and since. */
  before: { alike: number; all: number };
  since: { alike: number; all: number };
}
export interface ChangeBody {
  what: string;
  component?: string;
  host?: string;
  environment?: string;
  /** Now where it is not given. */
  at?: Iso;
}
/** What was last known of something at an instant. */
export interface KnownState {
  component: string;
  host: string;
  environment: string;
  /** `version`, `running`, or the name of a setting. */
  subject: string;
  value: string;
  since: Iso;
  record: string;
}
/** What somebody found out about a finding, kept for those that are alike. */
export interface KnownCause {
  id: number;
  /** Whether the finding named the cause. */
  was: boolean;
  remedy: string;
  owner: string;
  /** On which strand it was found out. */
  strand: string;
  by: string;
  at: Iso;
}
export interface KnownCauseBody {
  signature: string;
  was: boolean;
  remedy: string;
  owner: string;
  strand: string;
}
