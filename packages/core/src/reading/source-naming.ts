import { standsAlone } from './file-names.ts';

const PACKED = /\.(?:gz|tgz|zip|bz2|xz|zst)$/i;
const ARCHIVE = /\.(?:tar|tgz|zip)(?:\.\w{2,3})?$/i;
/** A date and perhaps a time in a file's name. */
const DATE = /(?<!\d)(20\d\d)[-_.]?(0[1-9]|1[0-2])[-_.]?(0[1-9]|[12]\d|3[01])(?!\d)(?:[T_.-]?(?:[01]\d|2[0-3])[-_.:]?[0-5]\d(?:[-_.:]?[0-5]\d)?)?/;

/** Folders that tell nothing of what wrote the files in them: kinds of places, incidents, stages. */
const PLACE =
  /^(?:logs?|log-?files?|files?|var|tmp|data|archives?|old|backups?|containers?|pods|all|collected|exports?|downloads?|desktop|(?:incident|case|ticket|support|bundle|dump)s?[-_ ]?[\d._-]*|inc\d+|prod|production|test|stage|staging|\d[\d._-]*)$/i;
/** What kind of log it is, behind the name of what wrote it. */
const KIND_BEHIND = /(?<=.)[-_.](?:access|errors?|gc|out|err|std(?:out|err)|audit|debug|info|warn(?:ings?)?|trace|requests?|sql|slow|json)$/i;
/** How container platforms name what they keep of a container: pod, namespace, container and its number. */
const CONTAINER = /^[a-z0-9][a-z0-9.-]*_[a-z0-9-]+_([a-z0-9][a-z0-9-]*)-[0-9a-f]{64}$/;
/** What they append to the name of a set of pods for each of them. */
const POD = /-[bcdfghjklmnpqrstvwxz2456789]{6,10}-[bcdfghjklmnpqrstvwxz2456789]{5}$/;
const NUMBER = /^[0-9a-f]{64}$/;
const LONGEST = 60;

/**
 * What wrote a file, by its path: the innermost folder unless that tells nothing, else the file's name without its endings, dates and numbers. What lies in an archive
 * without folders goes by its own names: an archive is a bundle more often than one program's.
 *
 * @param folderIsHost the innermost folder is a machine's: then the file's name counts, if it tells more than what kind of log it is
 */
export function componentOf(path: string, folderIsHost = false): string {
  const parts = path.split('/').filter((part) => part !== '' && part !== '.');
  const place = parts.length > 1 ? parts[parts.length - 2]! : '';
  const folder = withoutPod(place.replace(PACKED, '').replace(/\.tar$/i, ''));
  const file = bareName(parts[parts.length - 1] ?? '');
  const container = CONTAINER.exec(file);
  if (container) return container[1]!.slice(0, LONGEST);
  if (folderIsHost && standsAlone(file, '')) return programOf(file);
  const named = folder !== '' && !PLACE.test(folder) && !DATE.test(folder);
  const bundle = parts.length === 2 && ARCHIVE.test(place) && standsAlone(file, folder);
  if (named && !bundle) return shortened(folder);
  return file === '' ? 'unnamed' : programOf(file);
}
/** A program's name by that of its file. */
const programOf = (file: string): string => shortened(withoutPod(file.replace(KIND_BEHIND, '').replace(/(?<=\p{L})[-_.]\d{4,}$/u, '')));
/** The innermost folder of a path and those above it, null where there is none. */
export function folderOf(path: string): { name: string; above: string } | null {
  const parts = path.split('/').filter((part) => part !== '' && part !== '.');
  const name = parts.at(-2);
  return name === undefined ? null : { name, above: parts.slice(0, -2).join('/') };
}
/** A file's name without its endings, dates and numbers. */
export const bareName = (name: string): string =>
  name
    .replace(DATE, '')
    .replace(/\.(?:log|txt|jsonl?|csv|tsv|xml|xes|out|err|gz|\d+)(?=\.|$)/gi, '')
    .replace(/[._-]+$/, '');
const withoutPod = (name: string): string => name.replace(POD, '');
/** A container's number is long: its first twelve digits are how it is shown elsewhere. */
const shortened = (name: string): string => (NUMBER.test(name) ? name.slice(0, 12) : name.slice(0, LONGEST));
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
