import type { Iso } from './index.ts';

/** The source texts of one version of a component. */
export interface SourceText {
  id: number;
  component: string;
  version: string;
  files: number;
  /** Of all files together. */
  bytes: number;
  /** Files that were no text, too large or too many. */
  leftOut: number;
  registeredAt: Iso;
  who: string;
}
/** What was written by a program, to find where. */
export interface Written {
  component: string;
  host: string;
  environment: string;
  at: Iso;
  logger: string;
  message: string;
  /** Calls of its traces. */
  frames: { code: string; unit: string; file: string | null; line: number | null }[];
}
export interface TextPlace {
  path: string;
  /** From 1; null where only the file is known. */
  line: number | null;
}
export interface WrittenPlaces {
  /** Null where nothing is registered for the component. */
  text: { id: number; version: string } | null;
  /** Whether this version ran by then; else it is the registered one that is known best, and `ran` is what ran, null where that is not known. */
  sure: boolean;
  ran: string | null;
  /** One for each frame. */
  frames: (TextPlace | null)[];
  /** The line that wrote the message. */
  message: TextPlace | null;
}
export interface TextLines {
  path: string;
  /** Of the first line here, from 1. */
  from: number;
  lines: string[];
  total: number;
}
