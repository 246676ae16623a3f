import type { TraceFrame } from '../structure/traces/types.ts';

/** What tells where a call stands. */
export type Called = Pick<TraceFrame, 'code' | 'unit' | 'file' | 'line'>;

/**
 * The registered file that a call of a trace stands in: the one whose path ends with most of what is known of it: its file with folders, or its package and class.
 *
 * @param paths of the registered files, with `/` between folders
 * @returns null where no file has its name, or several fit equally well
 */
export function fileOfFrame({ code, unit, file }: Called, paths: readonly string[]): string | null {
  if (file !== null) {
    const wanted = partsOf(file);
    const folders = unit !== '' && !unit.includes('/') && !unit.includes('\\') ? unit.split('.') : [];
    // a file that comes without its folders stands in those of its package
    return best(paths, wanted.length > 1 ? wanted : [...folders, ...wanted], wanted.at(-1)!);
  }
  const owner = code.split(/[.:#]+/)[0] ?? '';
  return owner === '' ? null : bestStem(paths, [...(unit === '' ? [] : unit.split('.')), owner]);
}

/** The registered file that a logger is named after, as `calc.Surface` is after `calc/Surface.java`. */
export function fileOfLogger(logger: string, paths: readonly string[]): string | null {
  const parts = logger.split(/[./:\\]+/).filter((part) => part !== '');
  return parts.length === 0 ? null : bestStem(paths, parts);
}

const partsOf = (path: string): string[] => path.replaceAll('\\', '/').split('/').filter((part) => part !== '' && part !== '.'); // prettier-ignore
const stem = (name: string): string => name.replace(/\.[^.]+$/, '');

/** Among the files of this name, the one that shares most folders with what is wanted; null where two share equally many. */
function best(paths: readonly string[], wanted: readonly string[], name: string): string | null {
  return unique(paths.filter((path) => partsOf(path).at(-1) === name), wanted, (part) => part); // prettier-ignore
}
function bestStem(paths: readonly string[], wanted: readonly string[]): string | null {
  const name = wanted.at(-1)!;
  return unique(paths.filter((path) => stem(partsOf(path).at(-1) ?? '') === name), wanted, stem); // prettier-ignore
}
function unique(paths: readonly string[], wanted: readonly string[], lastOf: (name: string) => string): string | null {
  const shared = (path: string): number => {
    const parts = partsOf(path);
    let count = 0;
    while (count < parts.length && count < wanted.length) {
      const own = parts[parts.length - 1 - count]!;
      if ((count === 0 ? lastOf(own) : own) !== wanted[wanted.length - 1 - count]) break;
      count++;
    }
    return count;
  };
  const ranked = paths.map((path) => ({ path, count: shared(path) })).sort((a, b) => b.count - a.count);
  return ranked.length > 0 && ranked[0]!.count > (ranked[1]?.count ?? 0) ? ranked[0]!.path : null;
}
