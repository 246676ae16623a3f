import type { Draft, Reader, RecordReader } from './shared.ts';
import { jsonLines } from './json-lines.ts';

/** jsonlog's names (PostgreSQL 15, section 20.8.5) → the names that csvlog's columns have here. */
const NAMES: Record<string, string> = {
  dbname: 'database',
  remote_host: 'client',
  session_id: 'session',
  line_num: 'session_line',
  ps: 'command',
  txid: 'xid',
  state_code: 'sqlstate',
  statement: 'query',
  application_name: 'application',
  backend_type: 'backend',
  leader_pid: 'leader_pid',
};

/** PostgreSQL's jsonlog, with the same field names as csvlog so that both are searched alike. */
export const pgJsonlog: Reader = {
  format: 'postgresql-jsonlog',
  confidence(sample) {
    const base = jsonLines.confidence(sample);
    if (base === 0) return 0;
    const lines = sample.lines.filter((line) => line !== '');
    const own = lines.filter((line) => line.includes('"error_severity"') && line.includes('"pid"')).length;
    return own === lines.length ? base + 0.01 : 0;
  },
  open(sample, context): RecordReader {
    const inner = jsonLines.open(sample, context);
    return {
      start: (line) => inner.start(line),
      begins: (line) => inner.begins(line),
      read(text: string, draft: Draft) {
        inner.read(text, draft);
        if (!draft.understood) return;
        const fields: Draft['fields'] = {};
        for (const name in draft.fields) {
          if (name === 'session_start') continue;
          fields[NAMES[name] ?? name] = draft.fields[name]!;
        }
        draft.fields = fields;
        draft.logger = String(fields.backend ?? '');
        if (fields.detail !== undefined) draft.message += `\n${String(fields.detail)}`;
      },
    };
  },
};
