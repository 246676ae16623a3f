import type { Draft, Reader, RecordReader, ReadingContext } from './shared.ts';
import { keyValues } from '../keyvalues.ts';
import { levelOfStatus } from '../levels.ts';
import { TimeReader } from '../times.ts';
import { tookOfFields } from '../took.ts';

/** The server's own name may stand before who asked; behind other servers that is a list. */
const HEAD =
  /^(?:([\w.-]{1,255}(?::\d{1,5})?) )??((?:[^\s,]{1,100}, ){0,20}\S+) (\S+) (\S+) \[([^\]]{20,40})\] "((?:[^"\\]|\\.)*)" (\d{3}|-) (\d+|-)(.*)$/s;
/** A time in seconds at the end. */
const SECONDS = / (\d{1,6}\.\d{3,6})"?$/;
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
    if (!hit || this.times.read(hit[5]!, 0, 'access') < 0) return;
    draft.at = this.times.at;
    this.times.reached();
    draft.timeText = hit[5]!;
    const fields = draft.fields;
    if (hit[1] !== undefined) fields.server = hit[1];
    fields.client = hit[2]!;
    if (hit[4] !== '-') fields.user = hit[4]!;
    const [method = '', path = '', protocol] = hit[6]!.split(' ');
    if (protocol !== undefined) {
      fields.method = method;
      fields.path = path;
      fields.protocol = protocol;
    }
    if (hit[7] !== '-') fields.status = Number(hit[7]);
    if (hit[8] !== '-') fields.bytes = Number(hit[8]);
    let rest = hit[9]!;
    const agent = AGENT.exec(rest);
    if (agent) {
      if (agent[1] !== '-') fields.referer = agent[1]!;
      if (agent[2] !== '-') fields.agent = agent[2]!;
      rest = rest.slice(agent[0].length);
    }
    if (rest.includes('=')) keyValues(rest, fields);
    const seconds = SECONDS.exec(rest);
    if (seconds && fields.request_time === undefined) fields.request_time = Number(seconds[1]);
    draft.took = tookOfFields(fields);
    draft.level = levelOfStatus(Number(hit[7]));
    draft.message = `${hit[6]!} ${hit[7]!} ${hit[8]!}${agent || rest === '' ? '' : rest}`;
    draft.understood = true;
  }
}
