import type { Sign } from './types.ts';

/** So much of a first line is looked at. */
const LOOKED_AT = 300;
/** Longer values are texts. */
const LONGEST = 80;

/** Without one of these beginnings of words nothing below fits. */
const POSSIBLE =
  /start|boot|ready|listening|stop|shut|terminat|exit|going down|chang|\bset |rais|lower|creas|moved|reload|switch|over|promot|leader|primary|deploy|roll|upgrad|instal|migrat/i;

const VALUE = `(?:"([^"]*)"|'([^']*)'|(\\S+?))`;
const END = `(?=[,;.)]?(?:\\s|$))`;
/** The name of a setting: the last word before, quoted or plain; words such as “setting” or “parameter” before it may be left away. */
const SETTING = `(?:"([^"]+)"|([\\p{L}\\p{N}_./:-]+(?: [\\p{L}\\p{N}_./:-]*\\d[\\p{L}\\p{N}_./:-]*)?))`;
const FROM_TO = new RegExp(
  `${SETTING}[:=]? (?:was |has been |is )?(?:changed|switched|set|raised|lowered|increased|decreased|moved) from ${VALUE} to ${VALUE}${END}`,
  'iu',
);
const CHANGED_TO = new RegExp(
  `(?:setting|parameter|option|property|limit|threshold|flag|level|mode|size) ${SETTING} (?:was |has been |is now |now )?(?:changed|set|switched|raised|lowered) to ${VALUE}${END}`,
  'iu',
);
const VERB_FIRST = new RegExp(
  `(?:changed|changing|switched|switching|set) (?:setting |parameter |option |property |flag )${SETTING} (?:from ${VALUE} )?to ${VALUE}${END}`,
  'iu',
);
const RELOADED = /\breload(?:ed|ing)\b.{0,40}\b(?:config\w*|settings)|\b(?:config\w*|settings)\b.{0,30}\breload(?:ed|ing)?\b/i;

const FAIL_OVER =
  /\bfail(?:ed|ing|s)?[- ]?over\b|\bswitch(?:ed|ing)?[- ]?over\b|\bpromot(?:ed|ing|ion)\b.{0,40}\b(?:primary|leader|master|standby|replica|writable)|\btook over\b|\b(?:new|elected|became)\b.{0,12}\b(?:leader|primary)\b/i;
const DEPLOYED = /\b(?:deployed|deploying|deployment of|rolled out|rolling out|rolled back|rolling back|upgraded|upgrading|installed|migrated to)\b/i;
const STARTED =
  /\b(?:started|starting|start-up|startup complete|booting|booted|restarted|restarting|ready to accept|is ready|now ready|listening on|initiali[sz]ed|up and running)\b/i;
const STOPPED = /\b(?:stopped|stopping|shutting down|shut down|shutdown|terminating|terminated|exiting|going down|rebooting)\b/i;
/** A name and its version. */
const VERSIONED = /(?:^|[\s"(])([A-Za-z][\w-]*)(?:[ /]|,? version |[ ]?v)v?(\d+\.\d+(?:\.\d+){0,2}(?:[-+][\w.]+)?)(?=[\s,;:)"]|$)/;
/** Four numbers are an address. */
const ADDRESS = /^\d+\.\d+\.\d+\.\d+$/;

const OLD = ['old', 'before', 'previous', 'oldvalue', 'from'];
const NEW = ['new', 'value', 'after', 'newvalue', 'to', 'current'];
const SUBJECTS = ['setting', 'parameter', 'option', 'property', 'flag'];

/**
 * Whether a record tells that something changes: a start, a stop, a setting, a fail-over, a deployment. For records that belong to no transaction; of
 * others a start or a change is their daily work.
 *
 * @param fields as parsed; `setting=… value=…` counts like words
 */
export function signOf(message: string, fields: Readonly<Record<string, unknown>>): Sign | null {
  const end = message.indexOf('\n');
  const line = message.slice(0, end < 0 ? LOOKED_AT : Math.min(end, LOOKED_AT));
  if (!POSSIBLE.test(line)) return null;
  return settingIn(line, fields) ?? (FAIL_OVER.test(line) ? plain('fail-over') : null) ?? aboutItself(line);
}

function settingIn(line: string, fields: Readonly<Record<string, unknown>>): Sign | null {
  const fromTo = FROM_TO.exec(line);
  const named = fieldOf(fields, SUBJECTS);
  if (fromTo) return setting(named ?? first(fromTo, 1, 2), first(fromTo, 3, 5), fieldOf(fields, NEW) ?? first(fromTo, 6, 8));
  const verb = VERB_FIRST.exec(line);
  if (verb) return setting(named ?? first(verb, 1, 2), first(verb, 3, 5), first(verb, 6, 8));
  const to = CHANGED_TO.exec(line);
  if (to) return setting(named ?? first(to, 1, 2), fieldOf(fields, OLD) ?? '', first(to, 3, 5));
  const value = named === null ? null : fieldOf(fields, NEW);
  if (named !== null && value !== null && /\b(?:chang|set\b|switch)/i.test(line)) return setting(named, fieldOf(fields, OLD) ?? '', value);
  return RELOADED.test(line) ? setting('configuration', '', '') : null;
}

/** Of starts, stops and deployments: the version too, where it is said. */
function aboutItself(line: string): Sign | null {
  const kind = DEPLOYED.test(line) ? 'deployment' : STOPPED.test(line) ? 'stop' : STARTED.test(line) ? 'start' : null;
  if (kind === null) return null;
  const version = VERSIONED.exec(line);
  return version && !ADDRESS.test(version[2]!) ? { kind, subject: version[1]!, before: '', after: version[2]! } : plain(kind);
}

const plain = (kind: Sign['kind']): Sign => ({ kind, subject: '', before: '', after: '' });
const setting = (subject: string, before: string, after: string): Sign => ({ kind: 'setting', subject: subject.slice(0, LONGEST), before: before.slice(0, LONGEST), after: after.slice(0, LONGEST) }); // prettier-ignore
/** The group of some that took part. */
function first(hit: RegExpExecArray, from: number, to: number): string {
  for (let i = from; i <= to; i++) if (hit[i] !== undefined) return hit[i]!;
  return '';
}
function fieldOf(fields: Readonly<Record<string, unknown>>, names: readonly string[]): string | null {
  for (const field in fields) {
    const value = fields[field];
    if ((typeof value === 'string' || typeof value === 'number') && names.includes(field.toLowerCase().replace(/[-_.]/g, ''))) return String(value);
  }
  return null;
}

const VERSION_FIELDS = new Set(['version', 'release', 'build', 'service.version', 'app.version', 'appversion', 'app_version', 'service_version', 'image.tag', 'image_tag', 'revision', 'git.commit', 'commit']); // prettier-ignore
/** The version that a record states in its fields, '' for none. Every record of a component may do so, also those of transactions. */
export function versionIn(fields: Readonly<Record<string, unknown>>): string {
  for (const field in fields) {
    if (!isVersionField(field)) continue;
    const value = fields[field];
    if (typeof value === 'string' && value.length > 0 && value.length <= LONGEST) return value;
  }
  return '';
}
const known = new Map<string, boolean>();
function isVersionField(field: string): boolean {
  let is = known.get(field);
  if (is === undefined) {
    is = VERSION_FIELDS.has(field.toLowerCase());
    if (known.size < 10_000) known.set(field, is);
  }
  return is;
}
