import type { NormalForm } from './types.ts';

/**
 * A phone number as digits in international notation (ITU-T E.164), `+` in front; numbers too short to be
 * more than an extension stay as their digits.
 *
 * @param country calling code for numbers in national notation
 */
export function normalPhone(text: string, country = '49'): string {
  const plus = text.trimStart().startsWith('+');
  let digits = text.replace(/\(0\)/g, '').replace(/\D/g, '');
  if (plus) return '+' + digits;
  if (digits.startsWith('00')) return '+' + digits.slice(2);
  if (digits.length < 6) return digits;
  if (digits.startsWith('0')) digits = country + digits.slice(1);
  else if (digits.length < 10) return digits; // a number within a town, whichever it is
  return '+' + digits;
}

/** The one spelling under which a value is kept and compared. */
export function normalValue(text: string, form: NormalForm): string {
  if (form.phone) return normalPhone(text);
  let value = text;
  if (form.separators === 'drop') value = value.replace(/[\s._/-]+/g, '');
  if (form.leadingZeros === 'drop') value = value.replace(/(^|\D)0+(?=\d)/g, '$1');
  if (form.case === 'lower') value = value.toLowerCase();
  else if (form.case === 'upper') value = value.toUpperCase();
  return value;
}
