import type { Cut, Draft, Fields, Level, Reader, RecordReader, ReadingContext, Sample } from './shared.ts';
import { fieldValue } from '../keyvalues.ts';
import { NamedFields, namesOf } from '../named-fields.ts';
import { localName, xmlTree, type XmlNode } from '../xml-tree.ts';

/** Elements that commonly stand for one event, the likeliest first; others count when they repeat. */
const USUAL = ['event', 'record', 'logentry', 'entry', 'logevent', 'logrecord', 'message', 'log'];
const TIME = /\d{4}-\d\d-\d\d[T ]\d\d:\d\d|"\d{13}"|>\d{13}<|>\d{10}<|\d\d[:]\d\d:\d\d/;
const MOST_FIELDS = 200;

/** XML with an element for each event, in any namespace, several documents one after another too; a DTD is never fetched. */
export const xmlEvents: Reader = {
  format: 'xml-events',
  confidence(sample) {
    if (!looksLikeXml(sample)) return 0;
    return elementOf(sample) === null ? 0 : 0.9;
  },
  open: (sample, context) => new XmlEventsReader(elementOf(sample) ?? 'event', context),
};

export const looksLikeXml = (sample: Sample): boolean => /^\s*<(?:\?xml|!DOCTYPE|!--|[A-Za-z_][\w.-]*(?::[\w.-]+)?[\s>/])/.test(sample.text);

/** The full name of the element that stands for an event. */
export function elementOf(sample: Sample): string | null {
  const seen = new Map<string, { count: number; timed: number; depth: number }>();
  const open: { name: string; from: number }[] = [];
  for (const tag of sample.text.matchAll(
    /<(?:!--[\s\S]*?-->|!\[CDATA\[[\s\S]*?\]\]>|(\/?)([A-Za-z_][\w.-]*(?::[\w.-]+)?)((?:[^<>"']|"[^"]*"|'[^']*')*?)(\/?)>)/g,
  )) {
    const name = tag[2];
    if (name === undefined) continue;
    if (tag[1] === '/') {
      const at = open.findLastIndex((one) => one.name === name);
      if (at < 0) continue;
      const { from } = open[at]!;
      note(name, sample.text.slice(from, tag.index), at);
      open.length = at;
    } else if (tag[4] === '/') note(name, tag[0], open.length);
    else open.push({ name, from: tag.index });
  }
  function note(name: string, text: string, depth: number): void {
    const known = seen.get(name) ?? { count: 0, timed: 0, depth };
    known.count++;
    if (TIME.test(text)) known.timed++;
    known.depth = Math.min(known.depth, depth);
    seen.set(name, known);
  }
  const timed = [...seen].filter(([, { count, timed: some }]) => some >= count * 0.5);
  const usual = (name: string): number => {
    const at = USUAL.indexOf(localName(name).toLowerCase());
    return at < 0 ? USUAL.length : at;
  };
  // the outermost that repeats; a usual name before another
  const best = timed
    .filter(([name, { count }]) => count > 1 || usual(name) < USUAL.length)
    .sort(([a, one], [b, two]) => Number(two.count > 1) - Number(one.count > 1) || usual(a) - usual(b) || one.depth - two.depth)[0];
  return best?.[0] ?? null;
}

/** Finds the pieces of a text: the elements of one name, and what stands between them. */
export class ElementCutter {
  private readonly begin: RegExp;
  private readonly inside: RegExp;

  constructor(element: string) {
    const name = element.replace(/[.-]/g, '\\$&');
    this.begin = new RegExp(`<${name}(?=[\\s>/])`, 'g');
    this.inside = new RegExp(`<!--|<!\\[CDATA\\[|</${name}\\s*>|<${name}(?=[\\s>/])`, 'g');
  }

  /** The element or the text up to the next one; null while it is not complete. */
  next(view: string, from: number, last: boolean): (Cut & { element: boolean }) | null {
    this.begin.lastIndex = from;
    const begin = this.begin.exec(view);
    if (!begin) return this.between(view, from, last);
    if (begin.index > from) return { to: begin.index, record: !isFraming(view.slice(from, begin.index)), element: false };
    const head = headEnd(view, from);
    if (head < 0) return last ? { to: view.length, record: true, element: false } : null;
    if (view.charCodeAt(head - 2) === 47) return { to: head, record: true, element: true };
    this.inside.lastIndex = head;
    for (let hit = this.inside.exec(view); hit; hit = this.inside.exec(view)) {
      if (hit[0].startsWith('</')) return { to: this.inside.lastIndex, record: true, element: true };
      // an element of the same name inside: the one before was never closed
      if (hit[0][1] !== '!') return { to: hit.index, record: true, element: true };
      const close = hit[0] === '<!--' ? '-->' : ']]>';
      const end = view.indexOf(close, this.inside.lastIndex);
      if (end < 0) break;
      this.inside.lastIndex = end + 3;
    }
    return last ? { to: view.length, record: true, element: true } : null;
  }

  private between(view: string, from: number, last: boolean): (Cut & { element: boolean }) | null {
    if (last) return { to: view.length, record: !isFraming(view.slice(from)), element: false };
    // the end may hold the beginning of a tag
    const tag = view.lastIndexOf('<');
    const to = tag >= from && view.indexOf('>', tag) < 0 ? tag : view.length;
    return to <= from || to - from < 65_536 ? null : { to, record: !isFraming(view.slice(from, to)), element: false };
  }
}

/** Where the tag that begins at `from` ends, behind its `>`; -1 where it does not end. */
function headEnd(view: string, from: number): number {
  const TAG = /"[^"]*"|'[^']*'|>/g;
  TAG.lastIndex = from;
  for (let hit = TAG.exec(view); hit; hit = TAG.exec(view)) if (hit[0] === '>') return TAG.lastIndex;
  return -1;
}

/** Whether a text is nothing but markup around events. */
const isFraming = (text: string): boolean =>
  text
    .replace(/^\xef\xbb\xbf|\ufeff|\0/, '')
    .replace(/<!--[\s\S]*?-->|<!DOCTYPE[^>[]*(?:\[[\s\S]*?\]\s*)?>|<\?[\s\S]*?\?>|<\/?[A-Za-z_](?:[^<>"']|"[^"]*"|'[^']*')*>/g, '')
    .trim() === '';

export class XmlEventsReader implements RecordReader {
  protected readonly named: NamedFields;
  private readonly cutter: ElementCutter;

  constructor(element: string, context: ReadingContext) {
    this.named = new NamedFields(context);
    this.cutter = new ElementCutter(element);
  }
  start(): void {}
  begins(): boolean {
    return true;
  }
  cut(view: string, from: number, last: boolean): Cut | null {
    return this.cutter.next(view, from, last);
  }

  read(text: string, draft: Draft): void {
    draft.message = text;
    const tree = xmlTree(text.trim());
    if (!tree) return;
    const fields = fieldsOf(tree);
    const { component, host } = namesOf(fields);
    draft.component = component;
    draft.host = host;
    if (this.windows(fields, draft)) return;
    const written = plainNames(fields);
    if (this.named.read(fields, text, draft) && written !== null) draft.timeText = written;
  }

  /** Events of the Windows event log, by its schema: numbers for levels, provider and computer. */
  private windows(fields: Fields, draft: Draft): boolean {
    const time = fields['System.TimeCreated.SystemTime'];
    if (typeof time !== 'string' || this.named.times.readAny(time, 0)?.end !== time.length) return false;
    draft.at = this.named.times.at;
    this.named.times.reached();
    draft.timeText = time;
    draft.level = ([3, 6, 5, 4, 3, 2] as Level[])[Number(fields['System.Level'] ?? 0)] ?? 3;
    draft.logger = String(fields['System.Provider.Name'] ?? fields['System.Channel'] ?? '');
    draft.component = /^[\w.:-]{1,80}$/.test(draft.logger) ? draft.logger : '';
    draft.host = String(fields['System.Computer'] ?? '');
    const rest: Fields = {};
    for (const name in fields) {
      if (name === 'System.TimeCreated.SystemTime' || name === 'System.Provider.Name' || name === 'xmlns') continue;
      rest[name.replace(/^(?:System|EventData|UserData)\./, '')] = fields[name]!;
    }
    const rendered = fields['RenderingInfo.Message'];
    const data = Object.keys(fields).filter((name) => name.startsWith('EventData.'));
    draft.message =
      typeof rendered === 'string'
        ? rendered
        : [
            `${draft.logger} ${String(fields['System.EventID'] ?? '')}`.trim(),
            ...data.map((name) => `${name.slice(10)}=${String(fields[name])}`),
          ].join(' ');
    draft.fields = rest;
    draft.understood = true;
    return true;
  }
}

/** A tree as fields with paths; elements and attributes alike, and pairs of name and value under the name. */
export function fieldsOf(tree: XmlNode): Fields {
  const fields: Fields = {};
  let left = MOST_FIELDS;
  const put = (path: string, value: string): void => {
    if (left <= 0 || path === '' || path.startsWith('xmlns')) return;
    left--;
    const earlier = fields[path];
    fields[path] = earlier === undefined ? fieldValue(value) : `${String(earlier)}\n${value}`;
  };
  const walk = (node: XmlNode, path: string, depth: number): void => {
    const pair = pairOf(node);
    const below = path === '' ? '' : `${path}.`;
    if (pair) put((path.includes('.') ? path.slice(0, path.lastIndexOf('.') + 1) : '') + pair[0], pair[1]);
    else for (const [name, value] of node.attributes) put(below + localName(name), value);
    const text = node.text.trim();
    if (!pair && text !== '') put(path === '' ? 'text' : path, text);
    if (depth < 12) for (const child of node.children) walk(child, below + child.name, depth + 1);
  };
  walk(tree, '', 0);
  return fields;
}

/** `<Data Name="a">b</Data>`, `<property name="a" value="b"/>`, `<string key="a" value="b"/>`. */
function pairOf(node: XmlNode): [string, string] | null {
  if (node.attributes.length === 0 || node.attributes.length > 2) return null;
  const get = (...names: string[]): string | undefined => node.attributes.find(([name]) => names.includes(name.toLowerCase()))?.[1];
  const name = get('name', 'key');
  if (name === undefined || !/^[\p{L}_@][\p{L}\d_.:@ -]{0,100}$/u.test(name)) return null;
  const value = get('value');
  if (value !== undefined) return [name, value];
  return node.attributes.length === 1 && node.children.length === 0 && node.text.trim() !== '' ? [name, node.text.trim()] : null;
}

/**
 * Frames of a Java exception as a stack below its message, and an instant that stands beside a local time.
 *
 * @returns the time as it is written, where another field tells the instant
 */
function plainNames(fields: Fields): string | null {
  const { 'exception.message': said, date, millis, nanos } = fields;
  if (said !== undefined || fields['exception.frame.method'] !== undefined) {
    const classes = String(fields['exception.frame.class'] ?? '').split('\n');
    const methods = String(fields['exception.frame.method'] ?? '').split('\n');
    const lines = String(fields['exception.frame.line'] ?? '').split('\n');
    const frames = classes[0] === '' ? [] : classes.map((name, i) => `\tat ${name}.${methods[i] ?? ''}(${lines[i] ?? ''})`);
    for (const name of Object.keys(fields)) if (name.startsWith('exception.')) fields[name] = '';
    fields.stacktrace = [String(said ?? ''), ...frames, ''].join('\n').replace(/\n$/, frames.length > 0 ? '' : '\n');
    for (const name of Object.keys(fields)) if (fields[name] === '') delete fields[name];
  }
  if (typeof date === 'string' && typeof millis === 'number') {
    // java.util.logging writes the instant beside a local time without an offset
    fields.timestamp = ((millis + (typeof nanos === 'number' ? nanos / 1e6 : 0)) / 1000).toFixed(6);
    for (const name of ['date', 'millis', 'nanos']) delete fields[name];
    return date;
  }
  return null;
}
