/** So much of a message's beginning, and so much of its end, counts when strands are judged, in characters: what is declared of a flow is looked for in it. */
export const EXCERPT = 1000;

/**
 * What of a message its record is judged by: the whole of it, or its beginning and its end, where the innermost cause of a stack trace stands; the same as
 * the database's `excerptSql`.
 */
export function excerptOf(message: string): string {
  if (message.length <= 2 * EXCERPT) return message;
  const characters = lengthOf(message, 2 * EXCERPT);
  return characters === null ? `${message.slice(0, head(message))}\n${message.slice(tail(message))}` : message;
}
/** The same for a column of the database. */
export const excerptSql = (column: string): string =>
  `case when length(${column}) <= ${2 * EXCERPT} then ${column} else left(${column}, ${EXCERPT}) || e'\\n' || right(${column}, ${EXCERPT}) end`;

// a character beyond the first plane is one in the database, and two units here
const isPair = (text: string, at: number): boolean => (text.charCodeAt(at) & 0xfc00) === 0xd800 && (text.charCodeAt(at + 1) & 0xfc00) === 0xdc00;
/** Characters of a text, null for more than so many. */
function lengthOf(text: string, most: number): number | null {
  let count = 0;
  for (let i = 0; i < text.length; i++, count++) {
    if (count >= most) return null;
    if (isPair(text, i)) i++;
  }
  return count;
}
function head(text: string): number {
  let end = EXCERPT;
  for (let i = 0; i < end && i < text.length; i++) if (isPair(text, i)) [i, end] = [i + 1, end + 1];
  return end;
}
function tail(text: string): number {
  let begin = text.length;
  for (let count = 0; count < EXCERPT && begin > 0; count++) begin -= begin > 1 && isPair(text, begin - 2) ? 2 : 1;
  return begin;
}
