import type { Draft, Reader, RecordReader, ReadingContext } from './shared.ts';
import { keyValues } from '../keyvalues.ts';
import { levelOfStatus } from '../levels.ts';
import { TimeReader } from '../times.ts';
import { tookOfFields } from '../took.ts';

const HEAD = /^(\S+) (\S+) (\S+) \[([^\]]{20,40})\] "((?:[^"\\]|\\.)*)" (\d{3}|-) (\d+|-)(.*)$/s;
const AGENT = /^ "((?:[^"\\]|\\.)*)" "((?:[^"\\]|\\.)*)"/;

/** The common and combined log of web servers, with further quoted or key=value fields behind. */
export const accessLog: Reader = {
  format: 'access-log',
  confidence(sample) {
    const lines = sample.lines.filter((line) => line !== '').slice(0, 200);
    return lines.length === 0 ? 0 : (lines.filter((line) => HEAD.test(line)).length / lines.length) * 0.99;
  },
  open: (_sample, context) => new AccessLogReader(context),
};

class AccessLogReader implements RecordReader {
  private readonly times: TimeReader;
  constructor(context: ReadingContext) {
    this.times = new TimeReader(context);
  }
  start(): void {}
  begins(): boolean {
    return true;
  }

  read(text: string, draft: Draft): void {
    draft.message = text;
    const hit = HEAD.exec(text);
    if (!hit || this.times.read(hit[4]!, 0, 'access') < 0) return;
    draft.at = this.times.at;
    this.times.reached();
    draft.timeText = hit[4]!;
    const fields = draft.fields;
    fields.client = hit[1]!;
    if (hit[3] !== '-') fields.user = hit[3]!;
    const [method = '', path = '', protocol] = hit[5]!.split(' ');
    if (protocol !== undefined) {
      fields.method = method;
      fields.path = path;
      fields.protocol = protocol;
    }
    if (hit[6] !== '-') fields.status = Number(hit[6]);
    if (hit[7] !== '-') fields.bytes = Number(hit[7]);
    let rest = hit[8]!;
    const agent = AGENT.exec(rest);
    if (agent) {
      if (agent[1] !== '-') fields.referer = agent[1]!;
      if (agent[2] !== '-') fields.agent = agent[2]!;
      rest = rest.slice(agent[0].length);
    }
    if (rest.includes('=')) keyValues(rest, fields);
    draft.took = tookOfFields(fields);
    draft.level = levelOfStatus(Number(hit[6]));
    draft.message = `${hit[5]!} ${hit[6]!} ${hit[7]!}${agent || rest === '' ? '' : rest}`;
    draft.understood = true;
  }
}
