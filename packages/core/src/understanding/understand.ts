import { discoverIn } from '../identifiers/discovering.ts';
import { KEEP, type IdentifierKind } from '../identifiers/types.ts';
import type { Known } from '../records/types.ts';
import { asSnapshots, atTheirEnds, namedByFolders, otherTimes, readElsewhere, withLanes } from './better-read.ts';
import { clocksAmiss, withoutCopies } from './compared.ts';
import { HeldSource } from './held-source.ts';
import { sampled } from './in-time.ts';
import { judgedStrands } from './judged.ts';
import type { Declared, SourceFile, Understanding } from './types.ts';
import { tieTogether, type Tied } from './woven.ts';

/** Records from which links that nobody declared are looked for, and clocks are compared. */
const FEWEST = 1000;
/** Readings of all sources, at most: each of them finds something that was not known before. */
const MOST_ROUNDS = 40;

/**
 * What sources tell: read, what they name found, links discovered, stitched, clocks compared, copies told, the usual learned, every strand judged. The same functions do it as
 * in the server, which keeps records in a database in between and looks at them as they come; here all are at hand at once.
 *
 * @param files of one environment
 * @param ownZone zone of this machine, the last to be thought of for times without an offset
 * @throws RangeError where reading again does not come to an end
 */
export async function understand(files: readonly SourceFile[], declared: Declared, ownZone = 'UTC'): Promise<Understanding> {
  const sources: HeldSource[] = [];
  for (const file of files) {
    const source = new HeldSource(sources.length, file, declared.zone);
    if (source.about.problem === null) sources.push(source);
  }
  const known: Known = { kinds: [...declared.kinds], rules: [...declared.rules], clocks: [] };
  for (const source of sources) source.read(known);
  const tied = await settled(sources, known, ownZone);
  await withoutCopies(sources);
  const whole = sources.some((one) => one.copyOf !== null) ? tieTogether(sources, known.kinds) : tied;
  return {
    sources: sources.map(({ path, about, zone, records, copyOf }) => ({
      path,
      format: about.format,
      zone,
      component: about.component,
      host: about.host,
      records: records.length,
      copyOf: copyOf?.path ?? null,
    })),
    records: sources.flatMap((one) => one.records),
    strands: judgedStrands(sources, whole, known.kinds, declared.flows),
    kinds: known.kinds,
    clocks: known.clocks,
    copies: sources.flatMap((one) => one.copies),
  };
}

/** Reads again what shows to have been read wrongly, until nothing does. */
async function settled(sources: readonly HeldSource[], known: Known, ownZone: string): Promise<Tied> {
  let straight = false;
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const again = (some: readonly HeldSource[]): boolean => {
      for (const source of new Set(some)) source.read(known);
      return some.length > 0;
    };
    if (again([...readElsewhere(sources), ...asSnapshots(sources)])) continue;
    if (again([...otherTimes(sources, known, ownZone), ...namedByFolders(sources)])) continue;
    if (again(atTheirEnds(sources))) continue;
    const records = sources.reduce((sum, one) => sum + one.records.length, 0);
    if (!straight && records >= FEWEST && (await discovered(sources, known))) {
      again(sources);
      continue;
    }
    if (again(withLanes(sources))) continue;
    const tied = tieTogether(sources, known.kinds);
    if (guarded(tied, known)) {
      again(sources);
      continue;
    }
    if (straight || records < FEWEST) return tied;
    straight = true;
    known.clocks = clocksAmiss(sources, tied);
    if (known.clocks.length === 0) return tied;
    again(sources);
  }
  throw new RangeError('reading again does not come to an end');
}

/** Links that show only now are taken up. */
async function discovered(sources: readonly HeldSource[], known: Known): Promise<boolean> {
  if (!known.kinds.some((kind) => kind.role === 'business')) return false;
  const finds = ({ patterns, fields }: Pick<IdentifierKind, 'patterns' | 'fields'>): string => JSON.stringify([patterns, fields]);
  const before = new Set(known.kinds.map(finds));
  const found = discoverIn(await sampled(sources.flatMap((one) => one.records)), known.kinds).filter((one) => !before.has(finds(one)));
  const names = new Set(known.kinds.map((kind) => kind.name));
  known.kinds = [
    ...known.kinds,
    ...found.map(({ label, patterns, fields }): IdentifierKind => ({ name: freeName(label, names), label, role: 'link', patterns, fields, normal: KEEP, scope: 'global', leaseMs: null })), // prettier-ignore
  ];
  return found.length > 0;
}
function freeName(label: string, taken: Set<string>): string {
  const bare = label.toLowerCase().replace(/[^a-z0-9]+/g, '-').replace(/^-|-$/g, '').slice(0, 36) || 'link'; // prettier-ignore
  let name = bare;
  for (let i = 2; taken.has(name); i++) name = `${bare}-${i}`;
  taken.add(name);
  return name;
}

/** Links that join too much lose their tie. */
function guarded({ joining }: Tied, known: Known): boolean {
  const many = new Set(joining.map((one) => one.kind));
  const lost = known.kinds.filter((kind, index) => many.has(index) && kind.role === 'link');
  if (lost.length === 0) return false;
  known.kinds = known.kinds.map((kind) => (lost.includes(kind) ? { ...kind, role: 'shared' } : kind));
  return true;
}
