import type { FoundCode, OwnCode } from '@fadenweg/core/explain';

export type { FoundCode, OwnCode };
export interface KeptCode extends OwnCode {
  id: number;
  changedBy: string;
}

/** A package or folder that is declared to be the program's own, with all below it. */
export interface OwnPackage {
  prefix: string;
  changedBy: string;
}
