/** Patterns of what stands in the head of a line; each is tried where the part before it ended. */
export const GAP = '[ \\t]*';
const WORD = '([A-Za-zÀ-ÿ?]{2,14}\\d?)';
export const LEVEL_WORD = new RegExp(`^${WORD}$`);
/** Between commas without blanks. */
export const LEVEL_CELL = `[,;]"?${WORD}"?(?=[,;])`;
/** A level with its logger in one cell, or a level that nothing but its word tells. */
export const LEVEL_PAIRS = [`\\[([\\w.-]{1,40}):${WORD}\\]`, `([\\w-]{1,40})\\.${WORD}:(?=\\s)`];
export const BARE_LEVEL = `${WORD}(?=[:/\\s|,;[\\]-]|$)[:\\]]?`;
/** One letter, which also a bracket may follow at once. */
export const BARE_LETTER = '([A-Z])(?=[ \\t/|(:;,]|$):?';
export const LEVEL_LETTERS = new Set('TDIWEFVNC');
/** Cells in brackets, stars or quotes. */
export const ENCLOSED = ['\\[([^\\]\\n]{0,200})\\]:?', '\\(([^)\\n]{0,120})\\):?', '\\{(?!")([^}\\n]{0,200})\\}:?', '\\*([A-Za-z]{2,14})\\*'];
/** Cells in angle brackets: a markup's, a word's, or any where another one follows (the last one is the message). */
export const ANGLES = ['<(<[^<>\\n]*>|[^<>\\n]{0,200})>(?=\\s*<)', '<([^<>\\s]{1,120} *)>:?'];
export const QUOTED = `"${WORD}"`;
export const SEPARATOR = '(?:(?:-{1,3}|–|—|::?|;|>|=>|->|,)(?=\\s)|[|;])';
/** One word before a separator. The first two signs divide columns alone. */
export const DIVIDED = [
  '([^\\s|]{1,120})(?= *\\|)',
  '([^\\s:=]{1,120})(?= *\\t)',
  '([^\\s;="]{1,120})(?= *;)',
  '([^\\s,="]{1,120})(?=,[ \\t])',
  '([^\\s="]{1,120})(?=[ \\t]+(?:-{1,3}|–|—|::?|>|=>|->)[ \\t])',
];
/** Several words before a bar, where bars stand before them too. */
export const BARRED = '([^|\\n]{1,80}?)(?= *\\|)';
/** A name with what tells its line or type behind it, before a colon or a dash. */
export const LOGGER =
  '([\\p{L}\\d_$][\\p{L}\\d_$./<>#@-]{0,119}(?:::[\\p{L}\\d_<>]{1,60}){0,8}(?:\\[\\d+\\]|(?:(?::[\\w<>]{1,80})?:\\d{1,6})|\\([\\w$.]{1,80}:\\d{1,6}\\))?)(?=[ \\t]*(?:(?:-{1,3}|–|\\||=>|->|>)[ \\t]|:[ \\t]|:$))';
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
/** A name of several parts that nothing but its place tells: before a bracket or a tab, or a class with its method. */
export const NAMED = ['([\\p{L}_$][\\p{L}\\d_$./:-]{2,119})(?=[ \\t]+\\[)', '([\\p{L}_$][\\p{L}\\d_$./:-]{2,119})(?=\\t)'];
export const METHOD = '([\\p{L}_$][\\p{L}\\d_$]{0,60}(?:\\.[\\p{L}\\d_$<>]{1,80}){2,12})(?=[ \\t])';
export const GRADE = '\\d{1,2}:(?=\\s)';
export const NUMBER = '(\\d{1,10})(?=[ \\t])';
export const ONE_WORD = '(\\S{1,120})(?=[ \\t])';
/** What stands between time and level where that has brackets or pairs: a process, what is worked on. */
export const BEFORE_LEVEL = ['#(\\d{1,10})\\]', '((?:[\\w.]{1,40}=\\S{1,80}[ \\t]+){1,10})', ONE_WORD];
