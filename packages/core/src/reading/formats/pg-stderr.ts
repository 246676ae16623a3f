import type { Draft, Reader, RecordReader, ReadingContext, Sample } from './shared.ts';
import type { Level } from '../../units.ts';
import { keyValues } from '../keyvalues.ts';
import { TimeReader } from '../times.ts';
import { tookOfText } from '../took.ts';
import { learnPlace, timeAt, type TimePlace } from './text-place.ts';

/** Severities as the server writes them in English, German, French, Spanish and Italian. */
const SEVERITY: Record<string, Level> = {
  DEBUG: 2, DEBUG1: 2, DEBUG2: 2, DEBUG3: 2, DEBUG4: 2, DEBUG5: 2,
  LOG: 3, INFO: 3, NOTICE: 3, HINWEIS: 3, NOTA: 3, AVISO: 3, NOTIFICA: 3,
  WARNING: 4, WARNUNG: 4, ATTENTION: 4, ADVERTENCIA: 4, ATTENZIONE: 4,
  ERROR: 5, FEHLER: 5, ERREUR: 5, ERRORE: 5,
  FATAL: 6, PANIC: 6, PANIK: 6, FATALE: 6,
}; // prettier-ignore
/** Lines that go with the entry before, by the field that they fill. */
const DETAILS: Record<string, string> = {
  DETAIL: 'detail', DÉTAIL: 'detail', DETALLE: 'detail', DETTAGLI: 'detail',
  HINT: 'hint', TIPP: 'hint', ASTUCE: 'hint', SUGERENCIA: 'hint', SUGGERIMENTO: 'hint',
  CONTEXT: 'context', ZUSAMMENHANG: 'context', KONTEXT: 'context', CONTEXTE: 'context', CONTEXTO: 'context', CONTESTO: 'context',
  STATEMENT: 'query', ANWEISUNG: 'query', INSTRUCTION: 'query', SENTENCIA: 'query', ISTRUZIONE: 'query',
  QUERY: 'internal_query', ANFRAGE: 'internal_query', REQUÊTE: 'internal_query', CONSULTA: 'internal_query',
  LOCATION: 'location', BACKTRACE: 'location',
}; // prettier-ignore
const TAG = new RegExp(`(?:^|[ \\]:>|-])(${[...Object.keys(SEVERITY), ...Object.keys(DETAILS)].join('|')}): {2}`);
/** How far into a line the severity may stand. */
const LONGEST_PREFIX = 300;

/** PostgreSQL's log to stderr with any log_line_prefix that holds a time; details and statements belong to the entry before. */
export const pgStderr: Reader = {
  format: 'postgresql-stderr',
  confidence(sample) {
    if (!TAG.test(sample.text)) return 0;
    const learned = learnPlace(sample, new TimeReader({ zone: 'UTC', modified: 0 }));
    if (!learned) return 0;
    const tagged = learned.behind.filter((line, i) => TAG.test(line.slice(0, LONGEST_PREFIX)) || TAG.test(learned.before[i]!)).length;
    return tagged >= learned.behind.length * 0.8 ? 0.96 * (0.6 + 0.4 * learned.share) : 0;
  },
  open: (sample, context) => new PgStderrReader(sample, context),
};

class PgStderrReader implements RecordReader {
  private readonly times: TimeReader;
  private readonly place: TimePlace;
  constructor(sample: Sample, context: ReadingContext) {
    this.times = new TimeReader(context);
    this.place = learnPlace(sample, this.times) ?? { layout: 'iso', column: 0, words: 0, glued: false };
  }
  start(): void {}
  begins(line: string): boolean {
    const first = line.charCodeAt(0);
    if (first === 9 || first === 32 || !timeAt(line, this.place, this.times)) return false;
    const tag = TAG.exec(line.slice(0, LONGEST_PREFIX));
    return tag !== null && SEVERITY[tag[1]!] !== undefined;
  }

  read(record: string, draft: Draft): void {
    draft.message = record;
    const time = timeAt(record, this.place, this.times);
    const tag = TAG.exec(record.slice(0, LONGEST_PREFIX));
    const level = tag ? SEVERITY[tag[1]!] : undefined;
    if (!time || !tag || level === undefined) return;
    draft.at = this.times.at;
    this.times.reached();
    draft.timeText = record.slice(time.from, time.to);
    draft.level = level;
    draft.understood = true;
    const tagAt = tag.index + tag[0].length;
    readPrefix(`${record.slice(0, time.from)} ${record.slice(time.to, tagAt - tag[1]!.length - 3)}`, draft);
    const lines = record.slice(tagAt).split('\n');
    let field: string | null = null;
    const message: string[] = [];
    for (const [i, line] of lines.entries()) {
      const detail: RegExpExecArray | null = i > 0 && timeAt(line, this.place, this.times) ? TAG.exec(line.slice(0, LONGEST_PREFIX)) : null;
      if (detail && DETAILS[detail[1]!] !== undefined) {
        field = DETAILS[detail[1]!]!;
        draft.fields[field] = line.slice(detail.index + detail[0].length);
      } else if (field === null) message.push(line);
      else draft.fields[field] = `${String(draft.fields[field])}\n${line.replace(/^\t/, '')}`;
    }
    this.times.at = draft.at;
    draft.message = message.join('\n');
    if (draft.fields.detail !== undefined) draft.message += `\n${String(draft.fields.detail)}`;
    draft.took = tookOfText(lines[0]!);
  }
}

/** Process, session, user, database, client and application, as far as the prefix tells them apart. */
function readPrefix(prefix: string, draft: Draft): void {
  const { fields } = draft;
  if (prefix.includes('=')) keyValues(prefix.replace(/[,;]/g, ' '), fields);
  for (const [name, other] of [['db', 'database'], ['app', 'application'], ['usr', 'user']] as const) {
    if (fields[name] === undefined || fields[other] !== undefined) continue;
    fields[other] = fields[name];
  } // prettier-ignore
  const session = /(?<![\w.])([0-9a-f]{8}\.[0-9a-f]{1,8})(?![\w.])/.exec(prefix);
  if (session) fields.session = session[1]!;
  const pid = /\[(\d{1,10})(?:-(\d+))?\]/.exec(prefix) ?? /(?:^|[ (])(\d{2,10})(?=[ ):]|$)/.exec(prefix);
  if (pid && fields.pid === undefined) fields.pid = Number(pid[1]);
  const who = /(?:^|\s)([\w.$-]+)@([\w.$-]+)(?=\s|$)/.exec(prefix);
  if (who && who[1] !== '[unknown]') {
    fields.user ??= who[1]!;
    fields.database ??= who[2]!;
  }
  const client = /(?<![\w.])((?:\d{1,3}\.){3}\d{1,3})(?:\((\d+)\))?/.exec(prefix);
  if (client && fields.client === undefined) fields.client = client[2] ? `${client[1]!}:${client[2]}` : client[1]!;
}
