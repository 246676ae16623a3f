import { filesIn, namedIn, seriesOf } from './files.ts';
import { lineageIn } from './lineage.ts';
import { tablesIn } from './sql.ts';

export type Way = 'reads' | 'writes';
export type DataKind = 'file' | 'table' | 'feed';
/** Something that a run reads or writes. */
export interface Touch {
  way: Way;
  kind: DataKind;
  /** Of a file its series: what stays the same from run to run. */
  name: string;
  /** As it is called this time; '' where that is its name. */
  instance: string;
}
/** A record of a run, as much of it as is needed. */
interface Said {
  message: string;
  /** Hash of its message's shape. */
  shape: number;
  /** It tells of an error. */
  failing: boolean;
}
/** What a run did with one thing. */
export interface Touched extends Touch {
  /** Indexes of the first and the last record that tell of it. */
  first: number;
  last: number;
  failed: boolean;
}

/** A message tells of so many things at most, a run of so many. */
const MOST = 40;
const MOST_OF_RUN = 100;

/** What a message says is read and written. A file that is only named is left to what the run says of it elsewhere. */
export function touchesIn(message: string): (Omit<Touch, 'way'> & { way: Way | null })[] {
  const lineage = lineageIn(message);
  if (lineage) return lineage;
  const tables = tablesIn(message).map(({ way, table }) => ({ way, kind: 'table' as const, name: table, instance: '' }));
  if (tables.length > 0) return tables.slice(0, MOST);
  const files = filesIn(message).map(({ way, file }) => {
    const name = seriesOf(file);
    return { way: way === 'names' ? null : way, kind: 'file' as const, name, instance: name === file ? '' : file };
  });
  return [...files, ...namedIn(message).map((one) => ({ ...one, instance: '' }))].slice(0, MOST);
}

/** Messages of so many that name nothing, of one shape, and no other one of it is looked at. */
const SILENT = 3;
/** Shapes whose messages name nothing that is read or written: most of what is said. */
export class SilentShapes {
  private readonly misses = new Map<number, number>();
  touchesIn(message: string, shape: number): ReturnType<typeof touchesIn> {
    const missed = this.misses.get(shape) ?? 0;
    if (missed >= SILENT) return [];
    const found = touchesIn(message);
    // one that named something may always do so
    if (found.length > 0) this.misses.set(shape, -Infinity);
    else this.misses.set(shape, missed + 1);
    return found;
  }
}

/** What a run read and wrote, in the order in which it first says so. A file of which it never says which of the two is read: it is named because there is something in it. */
export function touchedBy(records: readonly Said[], silent = new SilentShapes()): Touched[] {
  const found = new Map<string, Touched>();
  const unsaid = new Map<string, Touched>();
  records.forEach(({ message, shape, failing }, index) => {
    for (const { way, kind, name, instance } of silent.touchesIn(message, shape)) {
      const [into, key] = way === null ? [unsaid, `${kind} ${name}`] : [found, `${way} ${kind} ${name}`];
      const known = into.get(key);
      if (known) {
        known.last = index;
        known.failed ||= failing;
        known.instance ||= instance;
      } else if (into.size < MOST_OF_RUN) into.set(key, { way: way ?? 'reads', kind, name, instance, first: index, last: index, failed: failing });
    }
  });
  for (const [key, one] of unsaid) if (!found.has(`reads ${key}`) && !found.has(`writes ${key}`)) found.set(`reads ${key}`, one);
  return [...found.values()].sort((a, b) => a.first - b.first);
}
