export type Role = 'business' | 'link' | 'shared';
export type Scope = 'global' | 'host' | 'process' | 'session';

/** How spellings of one value are made alike. */
export interface NormalForm {
  case: 'keep' | 'lower' | 'upper';
  separators: 'keep' | 'drop';
  leadingZeros: 'keep' | 'drop';
  /** The value is a phone number: national and international notation are one. */
  phone: boolean;
}

export interface IdentifierKind {
  /** Stable name: lower-case letters, digits and hyphens. */
  name: string;
  label: string;
  role: Role;
  /** Searched in a record's whole text; the first group, if there is one, is the value. */
  patterns: string[];
  /** Searched in a record's whole text alone; the first group, if there is one, is the value. */
  inText?: string[];
  /** Names of fields whose value is one; the last part of a nested name is enough. With patterns, the value has to match one. */
  fields: string[];
  normal: NormalForm;
  scope: Scope;
  /** How long a link of a reused value holds after its last mention, in milliseconds; null where values are never used again. */
  leaseMs: number | null;
}

/** One identifier as it stands in a record. */
export interface Mention {
  /** Index of its kind among those that the finder was made of. */
  kind: number;
  scope: string;
  /** In normal form. */
  value: string;
  key: number;
}

export const KEEP: NormalForm = { case: 'keep', separators: 'keep', leadingZeros: 'keep', phone: false };
/** Longest value that counts as an identifier, in characters. */
export const LONGEST_VALUE = 200;
