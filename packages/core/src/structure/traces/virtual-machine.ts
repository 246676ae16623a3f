import { frameOf, MOST_STRANGERS, thrownOf, type TraceFrame, type Thrown, type TraceReader } from './types.ts';

const TYPE = String.raw`(?:[\p{L}_$][\p{L}\p{N}_$]*\.)*[\p{L}_$][\p{L}\p{N}_$]*`;
const HEAD = new RegExp(String.raw`^(?:Exception in thread "[^"]*" )?(${TYPE})(?:: ?(.*))?$`, 'u');
/** What was thrown behind words of the program: of a package, a class by its name, and its calls at once in the next line. */
const WORDED = /^(.*?[\s:([])((?:[\p{L}_$][\p{L}\p{N}_$]*\.)+\p{Lu}[\p{L}\p{N}_$]*)(?:: ?(.*))?$/u;
const CAUSE = new RegExp(String.raw`^(\s*)(Caused by|Suppressed|Wrapped by): (${TYPE})(?:: ?(.*))?$`, 'u');
const FRAME = /^\s+at ((?:[\w.-]*(?:@[\w.+-]+)?\/)*)([\p{L}\p{N}_$.<>/-]+)\.([\p{L}\p{N}_$<>-]+)\(([^()]*)\)(?:.*)$/u;
const MORE = /^\s*\.\.\. (\d+) (?:more|common frames omitted)/;
/** Packages of the runtime itself. */
const PLATFORM = /^(?:javax?|jdk|sun|com\.sun|kotlin|kotlinx|scala|groovy|clojure)(?:\.|$)/;

function javaFrame(line: string): TraceFrame | null {
  const hit = FRAME.exec(line);
  if (!hit) return null;
  const [, , owner, method, place] = hit as unknown as [string, string, string, string, string];
  const at = /^(.*?):(\d+)$/.exec(place);
  // an argument list instead of a file is another runtime's
  if (!at && !/^(?:Native Method|Unknown Source|[\w$-]+\.\w+)$/.test(place)) return null;
  const unit = owner.split('.').slice(0, -1).join('.');
  return frameOf(
    {
      code: `${owner.slice(owner.lastIndexOf('.') + 1)}.${method}`,
      unit,
      file: at?.[1] ?? (place.includes(' ') ? null : place),
      line: at ? Number(at[2]) : null,
      standing: PLATFORM.test(unit === '' ? owner : unit) ? 'platform' : 'program',
    },
    line,
  );
}

/** Traces of the Java virtual machine, whatever the language. */
export const java: TraceReader = {
  language: 'java',
  read(lines, from) {
    const alone = HEAD.exec(lines[from]!.trim());
    const headless = !alone && javaFrame(lines[from]!) !== null;
    const worded = !alone && !headless && from + 1 < lines.length && javaFrame(lines[from + 1]!) ? WORDED.exec(lines[from]!) : null;
    if (!alone && !headless && !worded) return null;
    const head = alone ?? worded?.slice(1);
    // what it says may go on over lines
    let first = from + (headless ? 0 : 1);
    while (first < lines.length && first - from < 20 && !javaFrame(lines[first]!) && !CAUSE.test(lines[first]!)) first++;
    if (first >= lines.length || !javaFrame(lines[first]!)) return null;
    const said = [head?.[2] ?? '', ...lines.slice(from + 1, headless ? from + 1 : first)].join('\n').trim();
    let now = thrownOf('thrown', head?.[1] ?? '', said);
    const thrown: Thrown[] = [now];
    let end = first;
    for (let i = first, strange = 0; i < lines.length && strange <= MOST_STRANGERS; i++) {
      const line = lines[i]!;
      const frame = javaFrame(line);
      const cause = CAUSE.exec(line);
      const more = MORE.exec(line);
      if (!frame && !cause && !more) {
        strange++;
        continue;
      }
      if (strange > 0) now.strangers.push(...lines.slice(end, i));
      strange = 0;
      end = i + 1;
      if (frame) now.frames.push(frame);
      else if (more) now.omitted += Number(more[1]);
      else thrown.push((now = thrownOf(cause![2] === 'Suppressed' ? 'suppressed' : 'caused by', cause![3]!, cause![4] ?? '')));
    }
    return { thrown, end, begin: worded?.[1]!.length ?? 0 };
  },
};

const NET_HEAD = /^(?:Unhandled exception\. )?((?:\w+\.)+\w+): ?(.*)$/;
const NET_INNER = /^\s*---> ((?:\w+\.)+\w+)(?: \([^)]*\))?: ?(.*)$/;
const NET_FRAME = /^\s+at (?:async )?((?:[\p{L}\p{N}_`<>[\],+|]+\.)+[\p{L}\p{N}_`<>[\],|.]+)\((.*?)\)(?: in (.+):line (\d+))?\s*$/u;
const NET_END = /^\s*--- End of .*---\s*$/;

function netFrame(line: string): TraceFrame | null {
  const hit = NET_FRAME.exec(line);
  if (!hit) return null;
  const [, name, , file, number] = hit as unknown as [string, string, string, string | undefined, string | undefined];
  const parts = name.split('.');
  const unit = parts.slice(0, -2).join('.');
  return frameOf(
    {
      code: parts.slice(-2).join('.'),
      unit,
      file: file ?? null,
      line: number === undefined ? null : Number(number),
      standing: /^(?:System|Microsoft)(?:\.|$)/.test(name) ? 'platform' : 'program',
    },
    line,
  );
}

/** Traces of the common language runtime: causes stand inside, their frames before those of what is around them. */
export const dotnet: TraceReader = {
  language: 'dotnet',
  read(lines, from) {
    const head = NET_HEAD.exec(lines[from]!.trim());
    if (!head) return null;
    // a cause may stand behind the words of what it caused, on one line
    const open: Thrown[] = [];
    const thrown: Thrown[] = [];
    const begin = (relation: Thrown['relation'], type: string, message: string): void => {
      const inline = / ---> ((?:\w+\.)+\w+): ?(.*)$/.exec(message);
      const one = thrownOf(relation, type, inline ? message.slice(0, inline.index) : message);
      thrown.push(one);
      open.push(one);
      if (inline) begin('caused by', inline[1]!, inline[2]!);
    };
    begin('thrown', head[1]!, head[2]!);
    let end = from + 1;
    let frames = 0;
    for (let i = from + 1, strange = 0; i < lines.length && strange <= MOST_STRANGERS; i++) {
      const line = lines[i]!;
      const inner = NET_INNER.exec(line);
      const frame = netFrame(line);
      if (!inner && !frame && !NET_END.test(line)) {
        strange++;
        continue;
      }
      if (strange > 0) open.at(-1)!.strangers.push(...lines.slice(end, i));
      strange = 0;
      end = i + 1;
      if (inner) begin('caused by', inner[1]!, inner[2]!);
      else if (frame) frames += open.at(-1)!.frames.push(frame) > 0 ? 1 : 0;
      else if (/inner exception/.test(line) && open.length > 1) open.pop();
    }
    return frames === 0 ? null : { thrown, end };
  },
};
