import type { Micros } from '../writing/times.ts';
import type { Component, Host } from './types.ts';

/** A record as it comes about: who says what, when, about whom. */
export interface Said {
  component: Component;
  host: Host;
  /** True time. */
  at: Micros;
  /** In which order what is said at one instant was said. */
  order: number;
  /** 0 fine to 3 error. */
  level: number;
  text: string;
  logger: string;
  lane: number;
  /** By kind. */
  names: ReadonlyMap<string, string>;
  fields: Readonly<Record<string, string | number>>;
  /** Lines behind the first. */
  more: readonly string[];
  /** How long it took, in microseconds, where it says so. */
  took: Micros | null;
  /** Number of its transaction, -1 for none, and of its leg there. */
  of: number;
  leg: number;
  /** It shows why. */
  cause: boolean;
}
