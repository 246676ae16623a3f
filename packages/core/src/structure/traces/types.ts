export type Language = 'java' | 'dotnet' | 'javascript' | 'python' | 'go' | 'php' | 'ruby' | 'other';

/** One line of a trace: a call that was under way. */
export interface TraceFrame {
  /** As it is written, without what stands around it. */
  text: string;
  /** What was called: class and method, function. */
  code: string;
  /** What it is a part of: a package, a namespace, the folder of a file; '' where nothing tells. */
  unit: string;
  file: string | null;
  line: number | null;
  /** The runtime or its standard library, a library that was added, or neither as far as its name tells. */
  standing: 'platform' | 'library' | 'program';
}
/** An exception with the calls in which it came up, the innermost first. */
export interface Thrown {
  relation: 'thrown' | 'caused by' | 'suppressed' | 'while handling';
  type: string;
  message: string;
  frames: TraceFrame[];
  /** Frames that the runtime left out because the one around it has them too. */
  omitted: number;
  /** Lines of others that stand between, as where threads write into one file. */
  strangers: string[];
}
export interface Trace {
  language: Language;
  /** The outermost first, then its cause, and so on. */
  thrown: Thrown[];
  /** Place of the exception, and of its frame, where it most likely began; null where there is no frame. */
  origin: { thrown: number; frame: number } | null;
}
/** Lines of one message. */
export interface Lines {
  readonly text: readonly string[];
}
/** What a reader found from a line on: the trace, and behind its last line. */
export interface Found {
  thrown: Thrown[];
  end: number;
  /** Where it begins in its first line, in UTF-16 units: words may stand before it. */
  begin?: number;
}
export interface TraceReader {
  language: Language;
  /** Reads a trace that begins at a line, null where none does. */
  read(lines: readonly string[], from: number): Found | null;
}
/** A frame without the ends of its line. */
export const frameOf = (frame: Omit<TraceFrame, 'text'>, line: string): TraceFrame => ({ text: line.trim().replace(/^(?:at|from) /, ''), ...frame });
export const thrownOf = (relation: Thrown['relation'], type: string, message: string): Thrown => ({
  relation,
  type,
  message,
  frames: [],
  omitted: 0,
  strangers: [],
});
/** Lines of others between the frames of a trace, at most. */
export const MOST_STRANGERS = 2;
