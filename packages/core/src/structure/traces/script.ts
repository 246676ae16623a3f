import { frameOf, MOST_STRANGERS, thrownOf, type TraceFrame, type Thrown, type TraceReader } from './types.ts';

const folderOf = (file: string): string => file.slice(0, Math.max(0, file.replaceAll('\\', '/').lastIndexOf('/')));
/** By the folder in which a file lies: what came with the runtime, what was added, or the program itself. */
function standingOf(file: string): TraceFrame['standing'] {
  const path = file.replaceAll('\\', '/');
  if (/(?:^|\/)(?:node_modules|site-packages|dist-packages|vendor|gems|bower_components|pkg\/mod)\//.test(path)) return 'library';
  if (/^(?:node:|internal\/|<frozen|<internal:|<anonymous>|native)|\/lib\/(?:python|ruby)[\d.]*\/|\/go\/src\/|^\[internal/.test(path))
    return 'platform';
  return 'program';
}

const JS_FRAME = /^\s*at (?:async )?(?:(.+?) \()?((?:[a-z][\w+.-]*:\/{0,3})?[^\s()]*?):(\d+):(\d+)\)?(?: \{)?$/i;
const JS_PLAIN = /^\s*at (?:async )?(.+?) \((<anonymous>|native)\)$/;
const JS_BROWSER = /^([\w$.<>/ ]*)@((?:https?|file|webpack):\S+?):(\d+):(\d+)$/;
const JS_HEAD = /^(?:Uncaught (?:\(in promise\) )?)?([A-Za-z_$][\w$]*)(?: \[[\w-]+\])?(?:: ?(.*))?$/;
const JS_CAUSE = /^\s*\[?cause\]?: ([A-Za-z_$][\w$]*)(?: \[[\w-]+\])?: ?(.*)$/;

function jsFrame(line: string): TraceFrame | null {
  const hit = JS_FRAME.exec(line) ?? JS_BROWSER.exec(line);
  const plain = hit ? null : JS_PLAIN.exec(line);
  if (!hit && !plain) return null;
  const file = (hit ?? plain)![2]!;
  const code = (hit ?? plain)![1]?.trim() ?? '';
  return frameOf({ code: code === '' ? '(anonymous)' : code, unit: folderOf(file), file, line: hit ? Number(hit[3]) : null, standing: standingOf(file) }, line); // prettier-ignore
}
export const javascript: TraceReader = {
  language: 'javascript',
  read(lines, from) {
    const head = JS_HEAD.exec(lines[from]!.trim());
    if (!head) return null;
    let first = from + 1;
    while (first < lines.length && first - from < 12 && !jsFrame(lines[first]!)) first++;
    if (first >= lines.length || !jsFrame(lines[first]!)) return null;
    let now = thrownOf('thrown', head[1]!, [head[2] ?? '', ...lines.slice(from + 1, first)].join('\n').trim());
    const thrown: Thrown[] = [now];
    let end = first;
    for (let i = first, strange = 0; i < lines.length && strange <= MOST_STRANGERS; i++) {
      const frame = jsFrame(lines[i]!);
      const cause = JS_CAUSE.exec(lines[i]!);
      if (!frame && !cause) {
        strange++;
        continue;
      }
      if (strange > 0) now.strangers.push(...lines.slice(end, i).filter((line) => !/^[\s{}\],]*$/.test(line)));
      strange = 0;
      end = i + 1;
      if (frame) now.frames.push(frame);
      else thrown.push((now = thrownOf('caused by', cause![1]!, cause![2]!)));
    }
    return { thrown, end };
  },
};

const PY_BEGIN = /^\s*(?:Exception Group )?Traceback \(most recent call last\):\s*$/;
const PY_FRAME = /^\s+File "(.+?)", line (\d+)(?:, in (.+))?$/;
const PY_END = /^([A-Za-z_][\w.]*)(?:: ?(.*))?$/;
const PY_BECAUSE = /^The above exception was the direct cause of the following exception:/;
const PY_DURING = /^During handling of the above exception, another exception occurred:/;

/** Python tells the outermost call first and causes before what they caused; here it is turned round. */
export const python: TraceReader = {
  language: 'python',
  read(lines, from) {
    const thrown: Thrown[] = [];
    let relation: Thrown['relation'] = 'thrown';
    let i = from;
    let end = from;
    while (i < lines.length && PY_BEGIN.test(lines[i]!)) {
      const one = thrownOf('thrown', '', '');
      for (i++; i < lines.length; i++) {
        const hit = PY_FRAME.exec(lines[i]!);
        if (hit) {
          const [, file, line, code] = hit as unknown as [string, string, string, string | undefined];
          one.frames.unshift(frameOf({ code: code ?? '', unit: folderOf(file), file, line: Number(line), standing: standingOf(file) }, lines[i]!));
        } else if (!/^\s/.test(lines[i]!)) break;
      }
      if (one.frames.length === 0) return null;
      const last = PY_END.exec(lines[i] ?? '');
      if (last) {
        one.type = last[1]!;
        one.message = last[2] ?? '';
        i++;
      }
      // the one before is the cause of this one
      if (thrown[0]) thrown[0].relation = relation;
      thrown.unshift(one);
      end = i;
      let next = i;
      while (next < lines.length && lines[next]!.trim() === '') next++;
      if (PY_BECAUSE.test(lines[next] ?? '')) relation = 'caused by';
      else if (PY_DURING.test(lines[next] ?? '')) relation = 'while handling';
      else break;
      i = next + 1;
      while (i < lines.length && lines[i]!.trim() === '') i++;
    }
    return thrown.length === 0 ? null : { thrown, end };
  },
};

const RB_HEAD = /^(.+?):(\d+):in [`'](.+?)': (.*?)(?: \(([A-Z][\w:]*)\))?$/;
const RB_FRAME = /^\s+(?:\d+: )?(?:from )?(.+?):(\d+):in [`'](.+?)'$/;
export const ruby: TraceReader = {
  language: 'ruby',
  read(lines, from) {
    const head = RB_HEAD.exec(lines[from]!);
    if (!head || !RB_FRAME.test(lines[from + 1] ?? '')) return null;
    const frame = (file: string, line: string, code: string, text: string): TraceFrame => frameOf({ code, unit: folderOf(file), file, line: Number(line), standing: standingOf(file) }, text); // prettier-ignore
    const [, file, line, code, message, type] = head as unknown as [string, string, string, string, string, string | undefined];
    const one = thrownOf('thrown', type ?? '', message);
    one.frames.push(frame(file, line, code, `${file}:${line}:in '${code}'`));
    let end = from + 1;
    for (let hit = RB_FRAME.exec(lines[end] ?? ''); hit; hit = RB_FRAME.exec(lines[++end] ?? ''))
      one.frames.push(frame(hit[1]!, hit[2]!, hit[3]!, lines[end]!));
    return { thrown: [one], end };
  },
};

const PHP_HEAD = /^(?:.*?(?:error|exception):\s+)?(?:Uncaught )?(\\?[A-Za-z_][\w\\]*)(?:: (.*?))? in (\S+?)(?::(\d+)| on line (\d+))?$/i;
const PHP_NEXT = /^Next (\\?[A-Za-z_][\w\\]*): (.*?) in (\S+):(\d+)$/;
const PHP_FRAME = /^#\d+ (?:(.+?)\((\d+)\): (.+)|(\[internal function\]): (.+)|(\{main\}))$/;
/** PHP tells causes first, and what they caused behind “Next”. */
export const php: TraceReader = {
  language: 'php',
  read(lines, from) {
    const thrown: Thrown[] = [];
    let head = PHP_HEAD.exec(lines[from]!.trim());
    let i = from;
    let end = from;
    while (head && /^Stack trace:/.test(lines[i + 1] ?? '')) {
      const [, type, message, file, line] = head as unknown as [string, string, string | undefined, string, string | undefined];
      const one = thrownOf('thrown', type, message ?? '');
      one.frames.push(frameOf({ code: '', unit: folderOf(file), file, line: line === undefined ? null : Number(line), standing: standingOf(file) }, `${file}:${line ?? ''}`)); // prettier-ignore
      i += 2;
      for (let hit = PHP_FRAME.exec(lines[i] ?? ''); hit; hit = PHP_FRAME.exec(lines[++i] ?? '')) {
        const where = hit[1] ?? hit[4] ?? '';
        one.frames.push(frameOf({ code: hit[3] ?? hit[5] ?? hit[6]!, unit: folderOf(where), file: hit[1] ?? null, line: hit[2] === undefined ? null : Number(hit[2]), standing: standingOf(where) }, lines[i]!)); // prettier-ignore
      }
      if (thrown[0]) thrown[0].relation = 'caused by';
      thrown.unshift(one);
      end = i;
      while (i < lines.length && lines[i]!.trim() === '') i++;
      head = PHP_NEXT.exec(lines[i] ?? '');
    }
    if (/^\s+thrown in /.test(lines[end] ?? '')) end++;
    return thrown.length === 0 ? null : { thrown, end };
  },
};

const GO_HEAD = /^(?:panic|fatal error): (.*)$/;
const GO_ROUTINE = /^goroutine \d+ \[[^\]]*\]:$/;
const GO_FILE = /^\s+(\S+\.go):(\d+)(?: \+0x[0-9a-f]+)?$/;
const GO_CODE = /^(?:created by )?([\w./~-]*?[\w)]+(?:\.[\w()*.[\]{}-]+)*?)(?:\(.*\)|\(\.\.\.\))?(?: in goroutine \d+)?$/;
export const go: TraceReader = {
  language: 'go',
  read(lines, from) {
    const head = GO_HEAD.exec(lines[from]!);
    if (!head && !GO_ROUTINE.test(lines[from]!)) return null;
    const one = thrownOf('thrown', head ? 'panic' : 'goroutine', head?.[1] ?? lines[from]!);
    let i = from + 1;
    let end = i;
    for (; i + 1 < lines.length; i++) {
      const place = GO_FILE.exec(lines[i + 1]!);
      const code = place && GO_CODE.exec(lines[i]!);
      if (!place || !code) {
        // further goroutines are no part of what failed
        if (one.frames.length > 0 || (lines[i]!.trim() !== '' && !/^(?:goroutine|\[signal|\s)/.test(lines[i]!))) break;
        continue;
      }
      const file = place[1]!;
      const name = code[1]!.replace('(...)', '');
      const unit = name.slice(0, name.indexOf('.', name.lastIndexOf('/') + 1));
      const runtime = /^(?:runtime|panic$|sync|net\/http|net|io|os|reflect|testing|context)(?:\.|\/|$)/.test(name);
      one.frames.push(frameOf({ code: name.slice(name.lastIndexOf('/') + 1), unit, file, line: Number(place[2]), standing: runtime ? 'platform' : standingOf(file) }, `${lines[i]!.trim()} ${file}:${place[2]!}`)); // prettier-ignore
      i++;
      end = i + 1;
    }
    return one.frames.length === 0 ? null : { thrown: [one], end };
  },
};

const OTHER = /^\s+(?:at|in|from|by)\s+\S+|^\s*#\d+\s+\S+/;
/** Any list of calls: three lines at least that look alike. */
export const other: TraceReader = {
  language: 'other',
  read(lines, from) {
    let end = from + 1;
    while (end < lines.length && OTHER.test(lines[end]!)) end++;
    if (OTHER.test(lines[from]!) || end - from < 4) return null;
    const head = /^([\w.$:\\]*(?:Exception|Error|Fault|Failure|Panic)\w*)(?:: ?(.*))?$/i.exec(lines[from]!.trim());
    const one = thrownOf('thrown', head?.[1] ?? '', head ? (head[2] ?? '') : lines[from]!.trim());
    for (const line of lines.slice(from + 1, end)) {
      const place = /([\w./\\-]+\.\w{1,5}):(\d+)/.exec(line);
      const code = line.trim().replace(/^(?:at|in|from|by|#\d+)\s+/, '');
      one.frames.push(frameOf({ code, unit: place ? folderOf(place[1]!) : '', file: place?.[1] ?? null, line: place ? Number(place[2]) : null, standing: place ? standingOf(place[1]!) : 'program' }, line)); // prettier-ignore
    }
    return { thrown: [one], end };
  },
};
