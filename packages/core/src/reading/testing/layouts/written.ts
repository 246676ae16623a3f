import type { DrawnHead, DrawnLine } from '../drawn-heads.ts';
import type { Level } from '../../../units.ts';

/** Words for info, warning, error and debug, as the sets in templates name them. */
const LEVELS: Readonly<Record<string, readonly [string, string, string, string]>> = {
  upper: ['INFO', 'WARN', 'ERROR', 'DEBUG'],
  lower: ['info', 'warning', 'error', 'debug'],
  padded: ['INFO ', 'WARN ', 'ERROR', 'DEBUG'],
  right5: [' INFO', ' WARN', 'ERROR', 'DEBUG'],
  right5same: [' INFO', ' WARN', 'ERROR', 'DEBUG'],
  word: ['Information', 'Warning', 'Error', 'Debug'],
  letter: ['I', 'W', 'E', 'D'],
  java: ['INFO', 'WARNING', 'SEVERE', 'FINE'],
  python: ['INFO', 'WARNING', 'ERROR', 'DEBUG'],
  python8: ['INFO    ', 'WARNING ', 'ERROR   ', 'DEBUG   '],
  server: ['notice', 'warn', 'error', 'debug'],
  short4: ['INFO', 'WARN', 'FAIL', 'DBUG'],
  ext3: ['inf', 'wrn', 'err', 'dbg'],
  ext3u: ['INF', 'WRN', 'ERR', 'DBG'],
  ext4: ['INFO', 'WARN', 'ERRO', 'DEBU'],
  pino: ['30', '40', '50', '20'],
  pg: ['LOG', 'WARNING', 'ERROR', 'DEBUG1'],
  mysql: ['Note', 'Warning', 'ERROR', 'Note'],
  ch: ['Information', 'Warning', 'Error', 'Debug'],
  ast: ['NOTICE', 'WARNING', 'ERROR', 'DEBUG'],
  fs: ['NOTICE', 'WARNING', 'ERR', 'DEBUG'],
  opensips: ['INFO', 'WARNING', 'ERROR', 'DBG'],
  german: ['INFO', 'WARNUNG', 'FEHLER', 'DEBUG'],
  french: ['INFO', 'AVERTISSEMENT', 'ERREUR', 'DEBUG'],
  spanish: ['INFO', 'ADVERTENCIA', 'ERROR', 'DEBUG'],
};
const MEANT: readonly Level[] = [3, 4, 5, 2];
/** Sets in which a word stands for something else. */
const OTHERWISE: Readonly<Record<string, readonly Level[]>> = { mysql: [3, 4, 5, 3] };
const MESSAGES = [
  'order LX-204817 taken',
  'cannot reach the store: timed out after 30 s',
  'user anna logged in from the counter',
  'took 12 of 40 parts',
  'no stock left for lens 1.67; the order waits',
  'Verbindung zum Lager verloren',
  'la commande LX-204818 est prête',
  'started in 4.2 seconds',
  'state changed (idle -> busy)',
  'stored /data/in/204817.xml, 1204 bytes',
];
const two = (value: number): string => String(value).padStart(2, '0');
const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];
const DAYS = ['Sun', 'Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat'];

/** A moment in UTC as date field symbols write it; `_d` is a day padded by a blank. Told with it: how fine it is, in milliseconds. */
function written(pattern: string, at: Date): { text: string; unit: number } {
  let unit = /s/.test(pattern.replaceAll(/'[^']*'/g, '')) || /epoch/.test(pattern) ? 1000 : 60_000;
  const parts: [RegExp, (hit: string) => string][] = [
    [/^'([^']*)'/, (hit) => hit.slice(1, -1)],
    [/^epochms/, () => ((unit = 1), String(at.getTime()))],
    [/^epoch/, () => String(Math.floor(at.getTime() / 1000))],
    [/^yyyy/, () => String(at.getUTCFullYear())],
    [/^yy/, () => two(at.getUTCFullYear() % 100)],
    [/^MMM/, () => MONTHS[at.getUTCMonth()]!],
    [/^MM/, () => two(at.getUTCMonth() + 1)],
    [/^M/, () => String(at.getUTCMonth() + 1)],
    [/^EEE/, () => DAYS[at.getUTCDay()]!],
    [/^_d/, () => String(at.getUTCDate()).padStart(2)],
    [/^dd/, () => two(at.getUTCDate())],
    [/^d/, () => String(at.getUTCDate())],
    [/^HH/, () => two(at.getUTCHours())],
    [/^H/, () => String(at.getUTCHours())],
    [/^hh/, () => two(at.getUTCHours() % 12 || 12)],
    [/^h/, () => String(at.getUTCHours() % 12 || 12)],
    [/^mm/, () => two(at.getUTCMinutes())],
    [/^ss/, () => two(at.getUTCSeconds())],
    [/^S+/, (hit) => ((unit = hit.length === 2 ? 10 : 1), String(at.getUTCMilliseconds()).padStart(3, '0').padEnd(hit.length, '0').slice(0, hit.length))],
    [/^a/, () => (at.getUTCHours() < 12 ? 'AM' : 'PM')],
    [/^XXX/, () => '+00:00'],
    [/^Z/, () => '+0000'],
  ]; // prettier-ignore
  let text = '';
  for (let rest = pattern; rest !== '';) {
    const [hit, write] = parts.map(([is, write]) => [is.exec(rest)?.[0], write] as const).find(([hit]) => hit !== undefined) ?? [rest[0]!, (one: string) => one];
    text += write(hit!);
    rest = rest.slice(hit!.length);
  } // prettier-ignore
  return { text, unit };
}

/** A file of `count` lines of a template. Within `[[…]]` stands what its message has to be; `exact` tells whether that is said. */
export function writtenBy(template: string, seed: number, count: number): DrawnHead & { exact: boolean } {
  let state = (seed * 2_654_435_761) >>> 0;
  const upTo = (most: number): number => {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
    return Math.floor((state / 4_294_967_296) * most);
  };
  const one = <Item>(list: readonly Item[]): Item => list[upTo(list.length)]!;
  const hex = (length: number): string => Array.from({ length }, () => '0123456789abcdef'[upTo(16)]).join('');
  const pid = String(300 + upTo(30_000));
  const big = Array.from({ length: 3 }, () => `1397${10_000_000 + upTo(80_000_000)}`);
  const nums = Array.from({ length: 3 }, () => String(2000 + upTo(60_000)));
  const threads: Readonly<Record<string, () => string>> = {
    main: () => 'main',
    exec: () => `http-exec-${1 + upTo(6)}`,
    pool: () => `ForkPoolWorker-${1 + upTo(4)}`,
    right: () => `nio-80-exec-${1 + upTo(6)}`.padStart(15),
    conn: () => `conn${1 + upTo(40)}`,
    big: () => one(big),
    num: () => one(nums),
    num7: () => one(nums).padStart(7),
    hex8: () => `0000${one(nums).padStart(4, '0').slice(-4)}`,
  };
  const packages = ['works.lens.order.OrderService', 'works.lens.store.StoreClient', 'works.lens.print.Labels'];
  const loggers: Readonly<Record<string, () => string>> = {
    pkg: () => one(packages),
    cls: () => one(['OrderService', 'StoreClient', 'LabelPrinter']),
    short: () => one(['orders', 'store', 'labels']),
    place: () => `${one(['orders', 'store', 'labels'])}.c:${10 + upTo(800)}`,
    file: () => `${one(['orders', 'store', 'labels'])}.py`,
    path: () => one(['lens::order', 'lens::store', 'lens::print']),
  };
  let at = Date.UTC(2026, 10, 14 + upTo(10), 7 + upTo(9)) + upTo(3_000_000);
  const lines = Array.from({ length: count }, (): DrawnLine => {
    at += 200 + upTo(5000);
    let unit = 1;
    let thread: string | null = null;
    let logger: string | null = null;
    let level: Level = 0;
    const message = one(MESSAGES);
    const filled: Readonly<Record<string, () => string>> = {
      msg: () => message, pid: () => pid, n: () => String(1 + upTo(900)), num6: () => String(100_000 + upTo(800_000)), hex8: () => hex(8), uuid: () => `${hex(8)}-${hex(4)}-4${hex(3)}-a${hex(3)}-${hex(12)}`,
      ip: () => `192.0.2.${1 + upTo(200)}`, word: () => one(['desk', 'store', 'kiln', 'crane']), host: () => 'lw-app-1', prog: () => one(['desk', 'stored']), user: () => 'root', role: () => 'M', pri: () => '14',
      pct: () => `9${upTo(10)}.${10 + upTo(80)}`, logger2: () => `orders.go:${10 + upTo(300)}`,
    }; // prettier-ignore
    const text = template
      .replaceAll(/<([^<>{}]*(?:mm|epoch)[^<>{}]*)>/g, (_, pattern: string) => {
        const time = written(pattern, new Date(at));
        unit = time.unit;
        return time.text;
      })
      .replaceAll(/<(S+)>/g, (_, digits: string) => ((unit = 1), written(digits, new Date(at)).text))
      .replaceAll(/\{(\w+)(?:\.(\w+))?\}/g, (_, name: string, kind = '') => {
        if (name === 'L') {
          const which = upTo(4);
          level = (OTHERWISE[kind] ?? MEANT)[which]!;
          return LEVELS[kind]![which]!;
        }
        if (name === 'thread') return (thread = threads[kind]!());
        if (name === 'logger') {
          const said = loggers[kind]!();
          logger ??= said;
          return said;
        }
        // facility and severity in one number: user, informational
        if (name === 'pri') level = 3;
        return filled[name]!();
      });
    const said = /\[\[([\s\S]*)\]\]/.exec(text)?.[1] ?? message;
    return {
      text: text.replace('[[', '').replace(/^([\s\S]*?)\]\]/, (whole, before: string) => (text.includes('[[') ? before : whole)),
      at: Math.floor(at / unit) * unit * 1000,
      level,
      thread: (thread as string | null)?.trim() ?? null,
      logger,
      message: said,
    };
  });
  return { lines, numbered: /thread\.num/.test(template) && !template.includes('{pid}'), described: template, exact: template.includes('[[') };
}
