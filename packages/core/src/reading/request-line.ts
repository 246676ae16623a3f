import type { Fields, FieldValue } from './types.ts';

/** Names of fields by which servers tell of a request, the most telling first. */
const METHOD = ['method', 'http_method', 'request_method', 'verb', 'http.method', 'http.request.method', 'req.method'];
const TARGET = ['path', 'uri', 'url', 'request_uri', 'target', 'request_path', 'http.target', 'url.path', 'http.url', 'req.url'];
const STATUS = ['status', 'status_code', 'response_code', 'statuscode', 'http_status', 'response_status', 'http.status_code', 'http.response.status_code', 'res.statuscode']; // prettier-ignore
/** A whole first line of a request (RFC 9112, section 3), perhaps in a field. */
const LINE = ['request', 'req', 'request_line'];
const IS_LINE = /^[A-Z]{3,10} \S{1,4000} HTTP\/\d/;

/** What a record without words of its own tells of a request: its first line with the status, in which the status stands alone too; null where it tells of none. */
export function requestOf(fields: Fields): { words: string; status: number } | null {
  const find = (names: readonly string[], fits: (value: FieldValue) => boolean): FieldValue | undefined => {
    for (const name in fields) if (names.includes(name.toLowerCase()) && fits(fields[name]!)) return fields[name];
    return undefined;
  };
  const status = Number(find(STATUS, (value) => /^[1-5]\d\d$/.test(String(value))) ?? NaN);
  const line = find(LINE, (value) => typeof value === 'string' && IS_LINE.test(value)) ?? [
    find(METHOD, (value) => /^[A-Za-z]{3,10}$/.test(String(value))),
    find(TARGET, (value) => typeof value === 'string' && value !== ''),
  ];
  const words = Array.isArray(line) ? line.filter((part) => part !== undefined).join(' ') : String(line);
  if (!/\s/.test(words)) return null;
  return { words: Number.isNaN(status) ? words : `${words} ${status}`, status };
}
