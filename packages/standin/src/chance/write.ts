import { aheadAt } from '../huts/huts.ts';
import { SECOND } from '../writing/times.ts';
import type { Said } from './said.ts';
import type { Component } from './types.ts';

/** A record as it stands in its log: all its lines. */
export function written(said: Said): string {
  const { component } = said;
  const at = Math.round(said.at + aheadAt(said.host.clock, said.at));
  const time = component.time.text(Math.floor(at / component.time.grain) * component.time.grain);
  const named = [...said.names].map(([kind, value]): [string, string] => {
    const { key, spelling } = component.names.get(kind)!;
    return [key, spelling(value)];
  });
  return WRITERS[component.layout]({ said, time, named, level: component.levels?.[said.level] ?? '', lane: laneName(component, said.lane) });
}
/** The line that a log of this layout begins with, '' for none. */
export function headLine({ layout, names }: Component): string {
  if (layout !== 'csv') return '';
  return ['time', 'level', 'thread', ...[...names.values()].map((one) => one.key), 'text'].join(';');
}

const laneName = ({ lanes }: Component, lane: number): string => lanes.name.replace('$1', String(lanes.name === '$1' ? lanes.pids + lane : lane));

interface Line {
  said: Said;
  time: string;
  named: readonly [string, string][];
  level: string;
  lane: string;
}
type Writer = (line: Line) => string;

/** The text with what it is about, as its program puts it. */
function inline({ said, named }: Line): string {
  const { component, text, fields, more, took } = said;
  const pairs = [...named, ...Object.entries(fields).map(([key, value]): [string, string] => [key, String(value)])];
  if (took !== null && component.layout !== 'database') pairs.push(['ms', String(Math.round(took / 1000))]);
  const list = pairs.map(([key, value]) => `${key}=${value}`);
  const whole =
    list.length === 0
      ? text
      : component.inline === 'before'
        ? `${list.join(' ')} ${text}`
        : component.inline === 'behind'
          ? `${text} ${list.join(' ')}`
          : component.inline === 'brackets'
            ? `[${list.join(' ')}] ${text}`
            : `${text} (${pairs.map(([key, value]) => `${key} ${value}`).join(', ')})`;
  return [whole, ...more].join('\n');
}
const flat = (line: Line): string => inline(line).replaceAll('\n', ' ¦ ').replaceAll('\t', ' ');
const quoted = (value: string | number): string => (/[\s"=]/.test(String(value)) ? `"${String(value).replaceAll('"', "'")}"` : String(value));

const WRITERS: Record<Component['layout'], Writer> = {
  json: ({ said, time, named, level, lane }) =>
    JSON.stringify({
      time: /^\d{13}$/.test(time) ? Number(time) : time,
      ...(level === '' ? {} : { level: /^\d+$/.test(level) ? Number(level) : level }),
      logger: said.logger,
      thread: lane,
      msg: said.text,
      ...Object.fromEntries(named),
      ...said.fields,
      ...(said.took === null ? {} : { duration_ms: Math.round(said.took / 1000) }),
      ...(said.more.length > 0 ? { stack: said.more.join('\n') } : {}),
    }),
  logfmt: ({ said, time, named, level, lane }) =>
    [
      `ts=${quoted(time)}`,
      ...(level === '' ? [] : [`level=${level}`]),
      `thread=${lane}`,
      `msg=${quoted(said.text)}`,
      ...named.map(([key, value]) => `${key}=${quoted(value)}`),
      ...Object.entries(said.fields).map(([key, value]) => `${key}=${quoted(value)}`),
      ...(said.took === null ? [] : [`duration_ms=${Math.round(said.took / 1000)}`]),
      ...(said.more.length > 0 ? [`err=${quoted(said.more.join(' ').replaceAll('\t', ''))}`] : []),
    ].join(' '),
  text: (line) => {
    const { brackets, separator, order } = line.said.component.head;
    const [open, shut] = [brackets[0] ?? '', brackets[1] ?? ''];
    const columns = order.flatMap((column) => {
      const value = column === 'time' ? line.time : column === 'level' ? line.level : column === 'lane' ? line.lane : line.said.logger;
      return value === '' ? [] : [column === 'time' ? value : `${open}${value}${shut}`];
    });
    return `${columns.join(separator)}${separator}${inline(line)}`;
  },
  syslog5424: (line) => {
    const { host, component, level } = line.said;
    return `<${128 + [7, 6, 4, 3][level]!}>1 ${line.time} ${host.name} ${component.name} ${component.lanes.pids + line.said.lane} - - ${flat(line)}`;
  },
  syslog3164: (line) => {
    const { host, component } = line.said;
    return `${line.time} ${host.name} ${component.name}[${component.lanes.pids + line.said.lane}]: ${flat(line)}`;
  },
  csv: (line) => {
    const { component, fields, text, more, took } = line.said;
    const own = new Map(line.named);
    const rest = Object.entries(fields).map(([key, value]) => `${key}=${value}`);
    if (took !== null) rest.push(`ms=${Math.round(took / 1000)}`);
    const said = [text, ...rest, ...more.map((one) => one.trim())].join(' ').replaceAll(';', ',').replaceAll('"', "'");
    return [line.time, line.level, line.lane, ...[...component.names.values()].map((one) => own.get(one.key) ?? ''), said].join(';');
  },
  xml: ({ said, time, named, level, lane }) => {
    const escaped = (text: string): string => text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;');
    const more = [...named, ...Object.entries(said.fields), ...(said.took === null ? [] : [['ms', Math.round(said.took / 1000)] as const])];
    return [
      `<event time="${time}"${level === '' ? '' : ` level="${level}"`} thread="${escaped(lane)}">`,
      `  <text>${escaped([said.text, ...said.more].join('\n'))}</text>`,
      ...more.map(([key, value]) => `  <value name="${key}">${escaped(String(value))}</value>`),
      `</event>`,
    ].join('\n');
  },
  access: ({ said, time, named }) => {
    const { fields, took, host } = said;
    const ids = named.map(([key, value]) => `${key}=${value}`).join(' ');
    return `${host.address} - - [${time}] "${fields.method ?? 'GET'} ${fields.path ?? '/'} HTTP/1.1" ${fields.status ?? 200} ${200 + (said.order % 900)} "-" "-" ${((took ?? 0) / SECOND).toFixed(3)} ${ids}`;
  },
  database: (line) => {
    const { said, named, time, lane } = line;
    const about = named.map(([key, value]) => `${key}='${value}'`).join(',');
    const level = ['DEBUG', 'LOG', 'WARNING', 'ERROR'][said.level]!;
    const what =
      said.took === null ? said.text : `duration: ${(said.took / 1000).toFixed(3)} ms  statement: update ${said.text.split(' ')[0]!} set state = 2`;
    return `${time} [${lane}] ${level}:  ${what}${about === '' ? '' : ` /*${about}*/`}${said.more.length > 0 ? `\n${said.more.join('\n')}` : ''}`;
  },
};
