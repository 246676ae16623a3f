const PACKED = /\.(?:gz|tgz|zip|bz2|xz|zst)$/i;
/** A date and perhaps a time in a file's name. */
const DATE = /(?<!\d)(20\d\d)[-_.]?(0[1-9]|1[0-2])[-_.]?(0[1-9]|[12]\d|3[01])(?!\d)(?:[T_.-]?(?:[01]\d|2[0-3])[-_.:]?[0-5]\d(?:[-_.:]?[0-5]\d)?)?/;

/** The innermost folder names the component, else the file's name without its endings, dates and numbers. */
export function componentOf(path: string): string {
  const parts = path.split('/').filter((part) => part !== '' && part !== '.');
  const folder = (parts.length > 1 ? parts[parts.length - 2]! : '').replace(PACKED, '').replace(/\.tar$/i, '');
  if (folder !== '' && !/^(?:logs?|var|tmp|data|archive|old|\d[\d._-]*)$/i.test(folder) && !DATE.test(folder)) return folder.slice(0, 60);
  const bare = (parts[parts.length - 1] ?? 'unnamed')
    .replace(DATE, '')
    .replace(/\.(?:log|txt|jsonl?|csv|tsv|xml|xes|out|err|gz|\d+)(?=\.|$)/gi, '')
    .replace(/[._-]+$/, '');
  return (bare === '' ? 'unnamed' : bare).slice(0, 60);
}

/** What the parts of a rotated log have in common: the path without numbers, dates and packing. */
export function familyOf(path: string): string {
  const slash = path.lastIndexOf('/') + 1;
  const name = path
    .slice(slash)
    .replace(PACKED, '')
    .replace(new RegExp(`[._-]?${DATE.source}`), '')
    .replace(/(?<=.)\.\d{1,4}(?=$|\.[a-z]{2,5}$)/i, '');
  return path.slice(0, slash) + (name === '' ? path.slice(slash) : name);
}

/** The day that a path names, in days since 1970, null where it names none. */
export function dayOfPath(path: string): number | null {
  const hits = [...path.matchAll(new RegExp(DATE.source, 'g'))];
  const last = hits[hits.length - 1];
  return last ? Date.UTC(Number(last[1]), Number(last[2]) - 1, Number(last[3])) / 86_400_000 : null;
}
