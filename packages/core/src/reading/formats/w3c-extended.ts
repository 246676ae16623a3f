import type { Draft, Fields, Reader, RecordReader, ReadingContext, Sample } from './shared.ts';
import { fieldValue } from '../keyvalues.ts';
import { TimeReader } from '../times.ts';
import { levelOfStatus } from '../levels.ts';

/** Names of fields that other logs have under plain words. */
const PLAIN: Record<string, string> = {
  'c-ip': 'client', 'cs-username': 'user', 'cs-method': 'method', 'cs-uri-stem': 'path', 'cs-uri-query': 'query', 'sc-status': 'status',
  'sc-bytes': 'bytes', 'cs(user-agent)': 'agent', 'cs(referer)': 'referer', 's-computername': 'host', 'cs-host': 'vhost', 's-port': 'port', 's-ip': 'server', 'cs-uri': 'path',
}; // prettier-ignore

interface Directives {
  names: string[];
  date: string;
}

/** W3C extended log files: `#Fields:` tells the columns, and may tell others further on. Times are UTC. */
export const w3cExtended: Reader = {
  format: 'w3c-extended',
  confidence: (sample) => (sample.lines.slice(0, 20).some((line) => /^#Fields: .*\b(?:date|time)\b/i.test(line)) ? 0.99 : 0),
  open: (sample, context) => new W3cReader(sample, context),
};

class W3cReader implements RecordReader {
  private readonly times: TimeReader;
  private directives: Directives;

  constructor(sample: Sample, context: ReadingContext) {
    this.times = new TimeReader({ ...context, zone: 'UTC' });
    this.directives = (context.memory as Directives | undefined) ?? { names: [], date: '' };
    if (!context.memory) for (const line of sample.lines.slice(0, 20)) this.directive(line);
  }
  start(): void {}
  begins(): boolean {
    return true;
  }
  save(): Directives {
    return this.directives;
  }

  private directive(line: string): boolean {
    const hit = /^#(Fields|Date): *(.*)$/i.exec(line);
    if (!hit) return line.startsWith('#');
    this.directives =
      hit[1]!.toLowerCase() === 'fields'
        ? { ...this.directives, names: hit[2]!.trim().split(/\s+/) }
        : { ...this.directives, date: hit[2]!.slice(0, 10) };
    return true;
  }

  read(text: string, draft: Draft): void {
    draft.message = text;
    if (text.startsWith('#')) {
      draft.framing = this.directive(text);
      return;
    }
    const cells = cellsOf(text);
    const { names } = this.directives;
    if (cells.length !== names.length) return;
    const fields: Fields = {};
    let date = this.directives.date;
    let clock = '';
    for (let i = 0; i < names.length; i++) {
      const name = names[i]!.toLowerCase();
      const cell = cells[i]!;
      if (name === 'date') date = cell;
      else if (name === 'time') clock = cell;
      else if (cell !== '-')
        fields[PLAIN[name] ?? name] = name === 'time-taken' ? cell : fieldValue(name.startsWith('cs(') ? cell.replaceAll('+', ' ') : cell);
    }
    const time = `${date} ${clock}`;
    if (this.times.readAny(time, 0)?.end !== time.length) return;
    draft.at = this.times.at;
    this.times.reached();
    draft.timeText = time;
    const taken = fields['time-taken'];
    if (taken !== undefined) {
      // seconds with a fraction by the standard, whole milliseconds where a server writes whole numbers
      draft.took = Math.round(Number(taken) * (String(taken).includes('.') ? 1_000_000 : 1000));
      fields['time-taken'] = fieldValue(String(taken));
    }
    draft.level = typeof fields.status === 'number' ? levelOfStatus(fields.status) : 0;
    if (typeof fields.host === 'string') draft.host = fields.host;
    draft.fields = fields;
    draft.understood = true;
    const { method, path, query, status } = fields;
    if (method !== undefined && path !== undefined)
      draft.message = `${String(method)} ${String(path)}${query === undefined ? '' : `?${String(query)}`} ${String(status ?? '')}`.trim();
  }
}

function cellsOf(text: string): string[] {
  if (!text.includes('"')) return text.trim().split(/\s+/);
  return (text.match(/"(?:[^"]|"")*"|\S+/g) ?? []).map((cell) => (cell.startsWith('"') ? cell.slice(1, -1).replaceAll('""', '"') : cell));
}
