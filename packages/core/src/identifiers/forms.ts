const HEX = /^[0-9a-f]+$/i;

/** Parts of a value: runs of letters and digits, and what separates them. */
const partsOf = (value: string): string[] => value.match(/[\p{L}\d]+|[^\p{L}\d]+/gu) ?? [];
/** The letters in front of digits, as in `LX204817`, are a part of their own; a run that mixes both otherwise is kept together. */
function split(part: string): string[] {
  const hit = /^(\p{L}{1,6})(\d+)(\p{L}?)$/u.exec(part);
  return hit && !(HEX.test(part) && part.length >= 6 && /[a-f]/.test(hit[1]!)) ? hit.slice(1).filter((one) => one !== '') : [part];
}

/**
 * What a value looks like, so that values of one kind look alike: letters in front as they stand, digits as 9, hexadecimal runs as h, other mixtures as x.
 * `LX-204817` → `LX-9`, `m-7f3a90` → `m-hhhhhh`.
 */
export function formOf(value: string): string {
  return partsOf(value)
    .flatMap(split)
    .map((part, i) => {
      if (/^\d+$/.test(part)) return part.length >= 6 && i > 0 && value.includes('-') && isHexWorld(value) ? 'h'.repeat(part.length) : '9';
      if (!/[\p{L}\d]/u.test(part)) return part;
      if (HEX.test(part) && part.length >= 6) return 'h'.repeat(part.length);
      // a check letter behind a number differs from one to the next
      if (/^\p{L}{1,2}$/u.test(part) && i > 0) return 'a';
      if (/^\p{L}+$/u.test(part)) return i === 0 ? part : part.length <= 4 ? part : 'x';
      return 'x';
    })
    .join('');
}
/** A run of digits in a value of the form of hexadecimal numbers is one by chance. */
const isHexWorld = (value: string): boolean => {
  const runs = value.match(/[0-9a-f]{6,}/g) ?? [];
  return runs.length > 0 && /^[a-z]{1,2}-[0-9a-f]+$/.test(value) && runs[0]!.length >= 6;
};

/**
 * A pattern that fits values of one form, no wider than they need.
 *
 * @param exact numbers do not grow longer
 */
export function patternOfForms(values: readonly string[], exact = false): string {
  const form = formOf(values[0]!);
  const rows = values.map((value) => partsOf(value).flatMap(split));
  const width = rows[0]!.length;
  if (rows.some((row) => row.length !== width))
    return escape(form)
      .replace(/9/g, '\\d+')
      .replace(/h+/g, '[0-9a-f]+')
      .replace(/x/g, '\\w+')
      .replace(/(?<=\+.?)a/g, '[A-Za-z]{1,2}');
  return rows[0]!
    .map((_, column) => {
      const cells = rows.map((row) => row[column]!);
      if (cells.every((cell) => cell === cells[0]) && !/^\d+$/.test(cells[0]!)) return escape(cells[0]!);
      const lengths = cells.map((cell) => cell.length);
      const counts = !exact && cells.every((cell) => /^[1-9]\d{0,4}$/.test(cell));
      const times = repeat(Math.min(...lengths), Math.max(...lengths), counts, exact);
      if (cells.every((cell) => /^\d+$/.test(cell))) return `\\d${times}`;
      if (cells.every((cell) => /^[0-9a-f]+$/.test(cell))) return `[0-9a-f]${times}`;
      if (cells.every((cell) => /^[0-9A-F]+$/.test(cell))) return `[0-9A-F]${times}`;
      return cells.every((cell) => /^[A-Z]+$/.test(cell)) ? `[A-Z]${times}` : `\\w${times}`;
    })
    .join('');
}

function repeat(fewest: number, most: number, counts: boolean, exact: boolean): string {
  // a short counter goes on to the next digit
  if (fewest === most && !counts) return fewest === 1 ? '' : `{${fewest}}`;
  // numbers grow: leave room upwards
  return fewest < 2 && !exact ? '+' : `{${fewest},${exact ? most : most + 2}}`;
}
const escape = (text: string): string => text.replace(/[.*+?^${}()|[\]\\/]/g, '\\$&');

/** A name for a kind: the field that holds it most often, else its letters in front. */
export function labelOf(example: string, fields: readonly string[]): string {
  const field = fields.find((name) => /^[\p{L}][\p{L}\d_ -]{1,30}$/u.test(name));
  if (field) return field.replace(/([a-z])([A-Z])/g, '$1 $2').replace(/[_-]+/g, ' ').replace(/ ?\b(?:id|no|nr|number)$/i, '').trim().toLowerCase() || field;
  const letters = /^\p{L}+/u.exec(example)?.[0];
  return letters ? `${letters} number` : 'identifier';
} // prettier-ignore
