/** Names of files that tell what kind of log it is, not what wrote it. */
const KIND =
  /^(?:access|error|app|application|server|service|daemon|main|out|output|std(?:out|err)|console|gc|audit|system(?:out|err)?|messages|debug|info|warn|trace|https?|requests?|sql|slow|query|queries|current|default|log|events?|jobs?|batch|part|\d+)$/i;
const BREAKS = /[^\p{L}\d]+/u;
const wordsOf = (name: string): string[] => name.toLowerCase().split(BREAKS).filter((word) => word.length > 1); // prettier-ignore

/** Whether a file's name stands for itself: it tells more than the kind of log, and has no word in common with its folder's. */
export function standsAlone(file: string, folder: string): boolean {
  const [first = '', ...more] = wordsOf(file);
  return first !== '' && !KIND.test(first) && ![first, ...more].some((word) => wordsOf(folder).includes(word));
}

/**
 * Whether a folder's name tells nothing of the files that lie in it, all beside each other: they are logs of several programs.
 *
 * @param files their names, without endings or with them
 */
export function holdsSeveral(folder: string, files: readonly string[]): boolean {
  const own = files.filter((file) => standsAlone(file, folder));
  return own.length > files.length / 2 && new Set(own.map((file) => wordsOf(file)[0])).size > 1;
}

/**
 * A path as it can be sent and shown: control characters (an escape sign that a program left in a name) stand as their pictures, so that nothing of the
 * name is lost, and none of them breaks the lines in which names travel.
 */
export const visiblePath = (path: string): string =>
  path.replace(/[\u0000-\u001f\u007f]/g, (sign) => (sign === '\u007f' ? '\u2421' : String.fromCharCode(0x2400 + sign.charCodeAt(0))));
