import type { Draft, Reader, RecordReader } from './shared.ts';
import { fieldValue } from '../keyvalues.ts';
import { levelOfSeverity } from '../levels.ts';
import { tookOfFields, tookOfText } from '../took.ts';

/** `NAME=value`, or a name alone before a value that is told with its length (the journal's export format, a block for each entry). */
const FIELD = /^([A-Z_][A-Z0-9_]{0,63})(?:=(.*))?$/;
const AT = ['_SOURCE_REALTIME_TIMESTAMP', '__REALTIME_TIMESTAMP'];
const COMPONENT = ['SYSLOG_IDENTIFIER', '_COMM', '_SYSTEMD_UNIT'];
/** Microseconds since 1970. */
const MICROS = /^\d{16}$/;
/** Said apart, or an address within the journal. */
const APART = new Set([...AT, 'MESSAGE', 'PRIORITY', '_HOSTNAME', '__CURSOR', '__MONOTONIC_TIMESTAMP', '__SEQNUM', '__SEQNUM_ID']);
// the length of a value stands before it in eight bytes, which are no text
const LENGTH = /^[\u0000-\u001f\ufffd\u2400].{0,7}/u;

/** A system's journal as it is exported: blocks of fields, an empty line between them. */
export const journalExport: Reader = {
  format: 'journal-export',
  confidence(sample) {
    const lines = sample.lines.filter((line) => line !== '').slice(0, 200);
    const timed = lines.filter((line) => line.startsWith('__REALTIME_TIMESTAMP=')).length;
    const begun = lines.filter((line) => line.startsWith('__CURSOR=')).length;
    return timed > 0 && begun > 0 && lines.filter((line) => FIELD.test(line)).length >= lines.length * 0.6 ? 0.98 : 0;
  },
  open: (): RecordReader => ({
    start() {},
    begins: (line) => line.startsWith('__CURSOR='),
    read,
  }),
};

function read(text: string, draft: Draft): void {
  const values = new Map<string, string>();
  let open: string | null = null;
  for (const line of text.split('\n')) {
    const hit: RegExpExecArray | null = FIELD.exec(line);
    if (hit && hit[2] !== undefined) values.set(hit[1]!, hit[2]);
    else if (hit) values.set((open = hit[1]!), '');
    else if (open !== null && line !== '') {
      const before = values.get(open)!;
      values.set(open, before === '' ? line.replace(LENGTH, '') : `${before}\n${line}`);
    }
    if (hit?.[2] !== undefined) open = null;
  }
  draft.message = text;
  const time = AT.find((name) => MICROS.test(values.get(name) ?? ''));
  if (time === undefined) return;
  draft.at = Number(values.get(time));
  draft.timeText = values.get(time)!;
  draft.understood = true;
  draft.message = values.get('MESSAGE') ?? text;
  const priority = values.get('PRIORITY');
  if (priority !== undefined && /^[0-7]$/.test(priority)) draft.level = levelOfSeverity(Number(priority));
  draft.host = values.get('_HOSTNAME') ?? '';
  const component = COMPONENT.find((name) => values.has(name));
  if (component !== undefined) draft.component = draft.logger = values.get(component)!;
  for (const [name, value] of values) if (!APART.has(name)) draft.fields[name] = fieldValue(value);
  draft.took = tookOfFields(draft.fields);
  if (Number.isNaN(draft.took)) draft.took = tookOfText(draft.message);
}
