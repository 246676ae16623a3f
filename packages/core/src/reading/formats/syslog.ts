import type { Draft, Level, Reader, RecordReader, ReadingContext, Sample } from './shared.ts';
import { InnerJson } from './inner-json.ts';
import { keyValues } from '../keyvalues.ts';
import { levelOf, levelOfSeverity } from '../levels.ts';
import { TimeReader, type TimeLayout } from '../times.ts';
import { tookOfFields, tookOfText } from '../took.ts';

/** `<PRI>VERSION TIME HOST APP PROCID MSGID SD` of RFC 5424, section 6. */
const NEW = /^<(\d{1,3})>1 (\S+) (\S{1,255}) (\S{1,48}) (\S{1,128}) (\S{1,32}) /;
/** Octets that count the message before it (RFC 6587, section 3.4.1). */
const COUNTED = /^\d{1,6} (?=<\d{1,3}>)/;
const PRIORITY = /^<(\d{1,3})>/;
/** `HOST TAG[PID]:` behind the time of RFC 3164, section 4.1. */
const OLD = /^ (-|[\p{L}\d_:][^\s[\](){}<>"'|,;=]{0,254}) ([^\s:[\]]{1,64})(?:\[([^\]\s]{1,32})\])?: ?/u;
const LAYOUTS: readonly TimeLayout[] = ['month-name', 'iso'];

/** Messages of syslog, RFC 5424 and RFC 3164, as kept in files; also with ISO times in place of the old ones. */
export const syslog: Reader = {
  format: 'syslog',
  confidence(sample) {
    const lines = sample.lines.filter((line) => line !== '' && line[0] !== ' ' && line[0] !== '\t').slice(0, 200);
    if (lines.length === 0) return 0;
    const reader = new SyslogReader({ zone: 'UTC', modified: 0 });
    const share = lines.filter((line) => reader.begins(line)).length / lines.length;
    return Math.max(share * 0.97, withoutColon(sample) ? 0.92 : 0);
  },
  open: (sample: Sample, context: ReadingContext): RecordReader => new SyslogReader(context, withoutColon(sample) ? BARE : OLD),
};
/** The same where no colon stands behind the tag. */
const BARE = /^ ([\p{L}\d_.:-]{1,254}) ([\p{L}_][\p{L}\d_./-]{0,63})(?:\[([^\]\s]{1,32})\])?:? /u;
/** So few different hosts and tags in so many lines are names, and no words of a message. */
const FEW = 0.2;
function withoutColon(sample: Sample): boolean {
  const lines = sample.lines.filter((line) => line !== '' && line[0] !== ' ' && line[0] !== '\t').slice(0, 200);
  const times = new TimeReader({ zone: 'UTC', modified: 0 });
  const heads = lines.flatMap((line) => {
    const end = times.read(line, PRIORITY.exec(line)?.[0].length ?? 0, 'month-name');
    const hit = end > 0 && !times.isWhole ? BARE.exec(line.slice(end, end + 400)) : null;
    return hit && levelOf(hit[1]!) === 0 && levelOf(hit[2]!) === 0 ? [hit] : [];
  });
  if (heads.length < 2 || heads.length < lines.length * 0.9 || heads.filter(([all]) => all.endsWith(': ')).length > heads.length / 2) return false;
  const kinds = (place: number): number => new Set(heads.map((hit) => hit[place])).size;
  const most = Math.max(1, heads.length * FEW);
  return kinds(1) <= most && kinds(2) <= most;
}

class SyslogReader implements RecordReader {
  private readonly times: TimeReader;
  private readonly inner: InnerJson;
  /** @param old what stands between time and message in the old layout */
  constructor(
    context: ReadingContext,
    private readonly old: RegExp = OLD,
  ) {
    this.times = new TimeReader(context);
    this.inner = new InnerJson(context);
  }
  start(): void {}

  begins(line: string): boolean {
    const bare = line.replace(COUNTED, '');
    if (NEW.test(bare)) return true;
    const end = this.oldTime(bare);
    const hit = end > 0 ? this.old.exec(bare.slice(end, end + 400)) : null;
    // a level where the host should be: lines of a program, with its logger before the colon
    if (hit === null || levelOf(hit[1]!) > 0) return false;
    // a dash behind a whole date parts columns of a program's lines
    return hit[1] !== '-' || !this.times.isWhole;
  }

  /** Where the time of the old layout ends, -1 where there is none. */
  private oldTime(line: string): number {
    const from = PRIORITY.exec(line)?.[0].length ?? 0;
    for (const layout of LAYOUTS) {
      const end = this.times.read(line, from, layout);
      if (end > 0) return end;
    }
    return -1;
  }

  read(record: string, draft: Draft): void {
    draft.message = record;
    const text = record.replace(COUNTED, '');
    const hit = NEW.exec(text);
    if (hit) this.readNew(text, hit, draft);
    else this.readOld(text, draft);
    if (!draft.understood) return;
    this.times.reached();
    this.inner.read(draft);
    const breakAt = draft.message.indexOf('\n');
    const first = breakAt < 0 ? draft.message : draft.message.slice(0, breakAt);
    if (first.includes('=')) keyValues(first, draft.fields);
    const word = /^\[?(\p{L}{3,9})\]?[: ]/u.exec(first);
    if (draft.level === 0 && word) draft.level = levelOf(word[1]!);
    if (Number.isNaN(draft.took)) draft.took = tookOfFields(draft.fields);
    if (Number.isNaN(draft.took)) draft.took = tookOfText(first);
  }

  private readNew(text: string, hit: RegExpExecArray, draft: Draft): void {
    const [head, priority, time, host, app, pid, id] = hit as unknown as string[];
    const said = time === '-' ? null : this.times.readAny(time!, 0);
    if (!said) return;
    draft.at = this.times.at;
    draft.timeText = time!;
    draft.understood = true;
    readPriority(priority!, draft);
    readNames(host!, app!, pid!, draft);
    if (id !== '-') draft.fields.msgid = id!;
    draft.message = readStructured(text, head!.length, draft);
  }

  private readOld(text: string, draft: Draft): void {
    const end = this.oldTime(text);
    if (end < 0) return;
    const hit = this.old.exec(text.slice(end, end + 400));
    if (!hit) return;
    draft.at = this.times.at;
    const priority = PRIORITY.exec(text);
    draft.timeText = text.slice(priority?.[0].length ?? 0, end);
    draft.understood = true;
    if (priority) readPriority(priority[1]!, draft);
    readNames(hit[1]!, hit[2]!, hit[3] ?? '-', draft);
    draft.message = text.slice(end + hit[0].length);
  }
}

function readPriority(text: string, draft: Draft): void {
  const priority = Number(text);
  if (priority > 191) return;
  draft.level = levelOfSeverity(priority % 8) satisfies Level;
  draft.fields.facility = Math.floor(priority / 8);
}

function readNames(host: string, app: string, pid: string, draft: Draft): void {
  if (host !== '-') draft.host = draft.fields.host = host;
  if (app !== '-') draft.component = draft.logger = app;
  if (pid !== '-') draft.fields.pid = /^\d+$/.test(pid) ? Number(pid) : pid;
}

/** Structured data (RFC 5424, section 6.3) into fields; what stands behind it is the message. */
function readStructured(text: string, from: number, draft: Draft): string {
  if (text.startsWith('-', from)) return text.slice(from + 1).replace(/^ ?\ufeff?/, '');
  const ELEMENT = /\[([^\s=\]"]{1,64})((?: [^\s=\]"]{1,64}="(?:[^"\\\]]|\\[\s\S])*")*)\]/y;
  ELEMENT.lastIndex = from;
  let pos = from;
  for (let element = ELEMENT.exec(text); element; element = ELEMENT.exec(text)) {
    pos = ELEMENT.lastIndex;
    const own = element[1]!;
    for (const [, name, value] of element[2]!.matchAll(/ ([^\s=\]"]+)="((?:[^"\\\]]|\\[\s\S])*)"/g)) {
      const path = draft.fields[name!] === undefined ? name! : `${own}.${name!}`;
      draft.fields[path] = value!.replace(/\\(["\\\]])/g, '$1');
    }
  }
  return text.slice(pos).replace(/^ ?\ufeff?/, '');
}
