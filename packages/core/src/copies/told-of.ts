import type { Fields } from '../reading/types.ts';
import type { Microseconds } from '../units.ts';
import type { Told } from './types.ts';
import { wordsOf } from './words.ts';

/** Most text of a record that is compared. */
const MOST = 20_000;

/**
 * A record as copies are told by.
 *
 * @param at when its source wrote it, in no corrected time
 * @param named whether the record itself names its component
 */
export function toldOf(record: {
  at: Microseconds;
  message: string;
  logger: string;
  fields: Fields;
  host: string;
  component: string;
  named: boolean;
}): Told {
  const message = record.message.slice(0, MOST);
  const { at, fields, host, component, named } = record;
  return {
    at,
    words: wordsOf([message, record.logger, ...Object.values(fields).map((value) => String(value).slice(0, MOST))]),
    said: wordsOf([message]),
    fields,
    host,
    component,
    named,
  };
}
