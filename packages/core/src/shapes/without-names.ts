/** Shorter words are too likely to be words. */
const SHORTEST = 4;

/**
 * A message as its shape is made of it: identifiers without a digit, which would not be told from words, stand as a number.
 *
 * @param names identifiers that it names, in any notation of upper and lower case
 */
export function withoutNames(message: string, names: readonly { value: string }[]): string {
  let text = message;
  for (const { value } of names) {
    if (value.length < SHORTEST || /\d/.test(value)) continue;
    for (let at = indexOf(text, value, 0); at >= 0; at = indexOf(text, value, at + 1)) text = `${text.slice(0, at)}0${text.slice(at + value.length)}`;
  }
  return text;
}
const indexOf = (text: string, value: string, from: number): number => {
  const at = text.indexOf(value, from);
  return at >= 0 ? at : text.toLowerCase().indexOf(value.toLowerCase(), from);
};
