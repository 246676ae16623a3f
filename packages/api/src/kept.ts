import type { Iso, WeightName } from './index.ts';

export interface QuietRuleBody {
  name: string;
  label: string;
  why: string;
  /** In the search language. */
  q: string;
  on: boolean;
}
export interface QuietRuleInfo extends QuietRuleBody {
  supplied: boolean;
  changedBy: string;
}
export interface ColumnSetBody {
  /** A width of 0 takes what room is left. */
  columns: { field: string; width: number }[];
  density: 'close' | 'usual' | 'wide';
  /** Whole messages, wrapped. */
  wrap: boolean;
  /** What the list is sorted by, as `took.down`; null for the order of time. */
  rank: string | null;
}
export interface SavedSearchBody {
  about: string;
  /** The parameters of the address that restore it. */
  address: Record<string, string>;
}
/** Something that a person keeps under a name. */
export interface SavedOf<What, Body> {
  id: number;
  what: What;
  name: string;
  body: Body;
  shared: boolean;
  supplied: boolean;
  owner: string;
  changedAt: Iso;
}
/** Columns of a list of strands. */
export interface StrandColumnsBody {
  columns: { field: string; width: number }[];
}
export type SavedSearch = SavedOf<'search', SavedSearchBody>;
export type SavedColumns = SavedOf<'columns', ColumnSetBody>;
export type SavedStrandColumns = SavedOf<'strand-columns', StrandColumnsBody>;
export type Saved = SavedSearch | SavedColumns | SavedStrandColumns;

/** A person said: whatever this search finds weighs so much. */
export interface WeightRuleBody {
  name: string;
  label: string;
  q: string;
  weight: WeightName;
}
export interface WeightRuleInfo extends WeightRuleBody {
  changedBy: string;
}
