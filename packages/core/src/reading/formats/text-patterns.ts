/** A level in brackets stands at a level's place also where its word is not known. */
export type Role = 'level' | 'marked-level' | 'letter' | 'thread' | 'logger' | 'pid' | 'context' | 'skip';
export interface Element {
  /** Source of a pattern, tried where the element before ended; a group for each of its roles but `skip`. */
  source: string;
  roles: readonly Role[];
}

export const GAP = '[ \\t]*';
const WORD = '([A-Za-zÀ-ÿ?]{2,14}\\d?)';
export const LEVELS: readonly Element[] = [
  ...[`\\[ *${WORD} *\\]:?`, `\\( *${WORD} *\\):?`, `< *${WORD} *>:?`, `"${WORD}"`].map((source): Element => ({ source, roles: ['marked-level'] })),
  { source: `\\| *${WORD}(?= *\\|)`, roles: ['level'] },
  { source: `[,;]"?${WORD}"?(?=[,;])`, roles: ['level'] },
  { source: `\\[([\\w.-]{1,40}):${WORD}\\]`, roles: ['logger', 'level'] },
  { source: `([\\w-]{1,40})\\.${WORD}:(?=\\s)`, roles: ['logger', 'level'] },
  { source: `${WORD}(?=[:/\\s|,;[\\]-]|$)[:\\]]?`, roles: ['level'] },
];
export const LETTERS = ['\\[([A-Z])\\]', '([A-Z])(?=[ /|(]|\\d|$)'];
export const LEVEL_LETTERS = new Set('TDIWEFV');
export const SEPARATOR = '(?:(?:-{1,3}|–|—|::?|;|>|=>|,)(?=\\s)|\\|)';
export const LOGGER =
  '([\\p{L}\\d_$][\\p{L}\\d_$./<>#@-]{0,119}(?:::[\\p{L}\\d_<>]{1,60}){0,8}(?:\\[\\d+\\]|(?::[\\w<>]{1,80})?:\\d{1,6}|\\([\\w$.]{1,80}:\\d{1,6}\\))?)(?=[ \\t]*(?:(?:-{1,2}|–|\\||=>)[ \\t]|:[ \\t]|:$))';
/** A logger between colons without blanks: `INFO:lens.calc:message`. */
export const GLUED = '([\\p{L}_$][\\p{L}\\d_$.-]{0,119}):(?=[^\\s:])';
/** A file and its line, or a module, before a closing bracket. */
export const PLACE = '([\\w$./-]{1,100}:\\d{1,6}|[\\w$]{1,60}(?:(?:::|\\.)[\\w$]{1,60}){0,8})\\]';
/** A file and its line before a blank. */
export const FILE_LINE = '([\\w$./-]{1,100}\\.[a-zA-Z]{1,5}:\\d{1,6})(?=[ \\t])';
/** A process and a thread of it. */
export const PROCESS = '(\\d{1,10}#\\d{1,10}):';
/** A thread behind the level, in one pair of brackets with it. */
export const BEHIND_SLASH = '/([\\w.@-]{1,80})\\]';
/** Cells in angle brackets, another one behind each of them: the last one is the message. */
export const ANGLES = '<(<[^<>\\n]*>|[^<>\\n]{0,200})>(?=\\s*<)';
export const CELL = '([^|\\n]{1,80}?)(?= *\\|)';
/** A name of several parts that nothing but its place tells: before a bracket or a tab, or a class with its method. */
export const NAMED = ['([\\p{L}_$][\\p{L}\\d_$./:-]{2,119})(?=[ \\t]+\\[)', '([\\p{L}_$][\\p{L}\\d_$./:-]{2,119})(?=\\t)'];
export const METHOD = '([\\p{L}_$][\\p{L}\\d_$]{0,60}(?:\\.[\\p{L}\\d_$<>]{1,80}){2,12})(?=[ \\t])';
/** A thread's number in eight hexadecimal digits. */
export const HEX_THREAD = '([\\da-f]{8})(?=[ \\t])';
/** What stands between time and level where that has brackets or pairs: a process, a thread, what is worked on. */
export const BEFORE_LEVEL = ['#(\\d{1,10})\\]', HEX_THREAD, '((?:[\\w.]{1,40}=\\S{1,80}[ \\t]+){1,10})', '(\\S{1,120})(?=[ \\t])'];
/** What threads are called. */
export const THREAD = /^(?:\d+|main|.*(?:thread|exec|pool|worker|nio|task|timer)\b.*|.*[-#]\d+)$/i;
/** A name of several parts, perhaps with a line behind, or of several words in one. */
export const NAME = /^[\p{L}_$][\p{L}\d_$]*(?:(?:[./$-]|::?)[\p{L}_$<][\p{L}\d_$<>-]*)+(?::\d+)?$|^[A-Z][a-z]+(?:[A-Z][a-z]+)+$/u;
export const CAPITALS = /^[A-Z][A-Z_-]{2,19}$/;
/** Several values at once, or an identifier: no thread. */
export const PAIRS = /,|[\da-f]{16}/i;
