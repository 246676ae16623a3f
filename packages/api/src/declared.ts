import type { Role } from './index.ts';

export interface NormalForm {
  case: 'keep' | 'lower' | 'upper';
  separators: 'keep' | 'drop';
  leadingZeros: 'keep' | 'drop';
  phone: boolean;
}
export interface IdentifierKind {
  name: string;
  label: string;
  role: Role;
  patterns: string[];
  fields: string[];
  normal: NormalForm;
  scope: 'global' | 'host' | 'process' | 'session';
  leaseMs: number | null;
  supplied?: boolean;
  /** Nobody declared it: it was found in the data, by these figures. */
  discovered?: KindEvidence | null;
  /** It was a link, but joined too much to tell transactions apart: it is shared since, until somebody lets it tie again. */
  guarded?: KindGuard | null;
  /** Somebody let it tie although it joins much. */
  trusted?: boolean;
}
export interface KindGuard {
  /** Values that stand beside a business identifier; of those, the ones that stand beside several. */
  values: number;
  joining: number;
  /** The value that stands beside most, and beside how many. */
  worst: string;
  worstCount: number;
}
export interface KindEvidence {
  /** Distinct values in what was looked at. */
  values: number;
  /** Of those beside a known identifier, the share that stands beside just one, 0 to 1. */
  single: number;
  /** Values that also stand in records which name nothing else. */
  free: number;
  recordsPerValue: number;
  examples: string[];
}
export interface FlowDeclaration {
  name: string;
  label: string;
  kind: string;
  prefix: string;
  patienceMs: number;
  expects: { field: string; words: string; min: number; max: number | null }[];
}
export interface Flow extends FlowDeclaration {
  usualMs: number | null;
  strands: number;
}
export interface Meaning {
  component: string | null;
  contains: string;
  means: 'done' | 'ends' | 'failed' | 'refused' | 'entry' | 'harmless';
}
