/** So much of a message counts when strands are judged, in characters: what is declared of a flow is looked for in it. */
export const EXCERPT = 1000;

/** The beginning of a message by which its record is judged, the same as the database's `left(message, EXCERPT)`. */
export function excerptOf(message: string): string {
  if (message.length <= EXCERPT) return message;
  // a character beyond the first plane is one there, and two units here
  let end = EXCERPT;
  for (let i = 0; i < end && i < message.length; i++) if (isPair(message, i)) [i, end] = [i + 1, end + 1];
  return message.slice(0, end);
}
const isPair = (text: string, at: number): boolean => (text.charCodeAt(at) & 0xfc00) === 0xd800 && (text.charCodeAt(at + 1) & 0xfc00) === 0xdc00;
