/** What a message says is done with a file or a feed. */
export interface FileUse {
  way: 'reads' | 'writes' | 'names';
  /** As written, without its folder. */
  file: string;
}

/** Ends of names of files that hold data (media types registered or in common use). */
const ENDINGS =
  'csv|tsv|psv|tab|xml|jsonl|ndjson|json|txt|dat|edi|edifact|x12|xlsx?|parquet|avro|orc|zip|gz|bz2|zst|tar|7z|pdf|idoc|flat|fwf|asc|dump|sql|ldif|ics|vcf|yaml|yml';
const FILE = new RegExp(
  String.raw`(?<![\p{L}\p{N}_@.-])((?:[a-z][a-z0-9+.-]{1,20}:\/\/|[A-Za-z]:\\|[.~]?[\/\\])?(?:[\p{L}\p{N}_.+#{}$%-]+[\/\\])*[\p{L}\p{N}_][\p{L}\p{N}_.+#-]*\.(?:${ENDINGS}))(?![\p{L}\p{N}_.]*[\p{L}\p{N}_])`,
  'giu',
);
/** Words of programs, English and German, that stand before a name or, without one between, behind it. */
const READS =
  /(?<!\p{L})(?:reads?|reading|loads?|loaded|loading|imports?|imported|importing|inputs?|sources?|from|fetch(?:ed|ing)?|downloads?|downloaded|receives?|received|opens?|opened|opening|pars(?:e|ed|ing)|process(?:ed|ing)?|picked up|consum(?:e|ed|ing)|gelesen|liest|lese|lädt|geladen|importiert|eingelesen|empfangen|verarbeite[tn]?|aus|von)(?!\p{L})/giu;
const WRITES =
  /(?<!\p{L})(?:writes?|wrote|written|writing|exports?|exported|exporting|outputs?|targets?|to|into|sends?|sent|uploads?|uploaded|sav(?:e|ed|ing)|stor(?:e|ed|ing)|creat(?:e|ed|ing)|generat(?:e|ed|ing)|archiv(?:e|ed|ing)|moved|produc(?:e|ed|ing)|geschrieben|schreibt|schreibe|exportiert|gespeichert|erzeugt|erstellt|gesendet|nach)(?!\p{L})/giu;
/** Behind a name they belong to the next one. */
const PREPOSITIONS = /(?<!\p{L})(?:from|to|into|aus|von|nach)(?!\p{L})/giu;
const LONGEST = 600;
/** Messages whose first line tells of code, not of data: a place in a stack trace. */
const IN_CODE = /^\s*(?:at |File "|Traceback|Caused by)/;

/**
 * The files that a message's first line names, and whether it says that they are read or written: by the nearest such word before the name, else by the
 * nearest behind it. `names` where it says neither.
 */
export function filesIn(message: string): FileUse[] {
  const end = message.indexOf('\n');
  const line = message.slice(0, Math.min(end < 0 ? message.length : end, LONGEST));
  // a body is what was exchanged: what is named in it is not said to be read
  if (!line.includes('.') || IN_CODE.test(line) || /^\s*[{[<]/.test(line)) return [];
  const found = new Map<string, FileUse>();
  let last = 0;
  for (const hit of line.matchAll(FILE)) {
    const before = line.slice(last, hit.index);
    const behind = line.slice(hit.index + hit[0].length, hit.index + hit[0].length + 60).split(/[,;(]/)[0]!;
    last = hit.index + hit[0].length;
    const file = hit[1]!.split(/[/\\]/).at(-1)!;
    found.set(file, { way: nearest(before, 'last') ?? nearest(behind.replace(PREPOSITIONS, ' '), 'first') ?? 'names', file });
  }
  return [...found.values()];
}
const NAMED = /(?<!\p{L})(table|view|topic|queue|Tabelle|Sicht|Warteschlange)\s+["'`]?([\p{L}_][\p{L}\p{N}_$.-]{1,99})/giu;
/** Words behind those that name none. */
const NO_NAMES =
  /^(?:is|was|has|had|are|of|in|for|with|at|by|and|or|to|on|from|not|does|did|full|empty|lock|locks|name|scan|depth|size|length|ist|war|hat|wird|mit|und|für|voll|leer)$/i;

/** Tables and queues that a message's first line says by that word are read or written: `read from table price`. */
export function namedIn(message: string): { way: 'reads' | 'writes'; kind: 'table' | 'feed'; name: string }[] {
  const end = message.indexOf('\n');
  const line = message.slice(0, Math.min(end < 0 ? message.length : end, LONGEST));
  if (IN_CODE.test(line)) return [];
  return [...line.matchAll(NAMED)].flatMap((hit) => {
    const way = nearest(line.slice(0, hit.index), 'last');
    const name = hit[2]!.replace(/[.-]+$/, '').toLowerCase();
    // a table that is only named is not touched by that
    if (way === null || NO_NAMES.test(name)) return [];
    return [{ way, kind: /^(?:table|view|tabelle|sicht)$/i.test(hit[1]!) ? ('table' as const) : ('feed' as const), name }];
  });
}
function nearest(text: string, which: 'first' | 'last'): 'reads' | 'writes' | null {
  const places = (words: RegExp): number[] => [...text.matchAll(words)].map((hit) => hit.index);
  const pick = (all: number[]): number => (which === 'last' ? Math.max(-1, ...all) : Math.min(Infinity, ...all));
  const [reads, writes] = [pick(places(READS)), pick(places(WRITES))];
  if (reads === writes) return null;
  return (which === 'last' ? reads > writes : reads < writes) ? 'reads' : 'writes';
}

/** A file without what changes from one run to the next: dates, times and numbers of three digits and more become `#`. */
export const seriesOf = (file: string): string =>
  file.replace(/\d{4}[-_.]?\d{2}[-_.]?\d{2}(?:[-_.T]?\d{2,6}){0,3}|\d{3,}/g, '#').replace(/#(?:[-_.]\d+)+(?=[-_.])/g, '#').replace(/#(?:[-_.]#)+/g, '#'); // prettier-ignore
