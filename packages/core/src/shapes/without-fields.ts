/** Most characters of a message that are looked at. */
const LONGEST = 600;
/** `name=value` that stands by itself, its value bare or quoted, with what parts it from what follows. */
const FIELD = /(?<![^\s,;[({*])[\p{L}_][\p{L}\d_.-]{0,40}=(?:"[^"]*"|'[^']*'|[^\s,;\])}*]*)[,;]?\s?/gu;
/** Names and values in brackets at the end of a line: `(order LX-1, took 12)`. */
const LISTED = /\s*[([]\p{L}[\p{L}\d_.-]{0,40}[ :]\s?[^\s,()[\]]+(?:,\s?\p{L}[\p{L}\d_.-]{0,40}[ :]\s?[^\s,()[\]]+)*[)\]]\s*$/u;
/** A remark in a statement. */
const REMARK = /\s*\/\*.*?\*\//gs;
const WORD = /(?<![\p{L}\d_.:/@-])\p{L}{2,}(?![\p{L}\d_=@/-]|[.:]\S)/gu;
const FEWEST_WORDS = 2;

/**
 * The first line of a message without the fields that are written beside its words (`name=value`, names and values in brackets at its end, remarks in statements): which of
 * them are there differs from one writing of the same sentence to the next. Where hardly any words would remain, the fields are what is said, and all stays.
 */
export function withoutFields(message: string): string {
  const end = message.indexOf('\n');
  const line = message.slice(0, Math.min(end < 0 ? message.length : end, LONGEST));
  const hasFields = line.includes('=');
  const isListed = /[)\]]\s*$/.test(line);
  if (!hasFields && !isListed && !line.includes('/*')) return line;
  let bare = line.replace(REMARK, '');
  if (hasFields) bare = bare.replace(FIELD, '');
  bare = bare.replace(/[([{]\s*[)\]}]/g, '').trim();
  if (isListed) {
    const listed = LISTED.exec(bare);
    if (listed && /\d/.test(listed[0])) bare = bare.slice(0, listed.index);
  }
  if (bare === line) return line;
  return (bare.match(WORD)?.length ?? 0) >= FEWEST_WORDS ? bare : line;
}
