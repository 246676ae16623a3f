import { holdsSeveral } from './file-names.ts';
import { bareName, componentOf, folderOf } from './source-naming.ts';

/** So many folders beside each other have to be hosts that records name, and so large a part of them, before the others count as hosts too. */
const FEWEST = 2;
const SHARE = 0.3;
/** Of the shapes of the one that has fewer, two logs of one program have so many in common; of two programs hardly any. */
const ONE_PROGRAM = 0.3;
/** What says fewer things tells nothing of which program it is. */
const FEWEST_SHAPES = 3;

/** A source beside others. */
export interface SourceBeside {
  path: string;
  /** Hashes of shapes that its records have. */
  shapes: readonly number[];
}
/** What a source is named by, and whether a person or its records said so. */
export interface NamedSource {
  path: string;
  component: string;
  host: string;
  componentFixed: boolean;
  hostFixed: boolean;
}

/**
 * Names of sources that lie in folders of machines: those name the host, and the files in them what wrote them. A folder is one of a machine where records name it as a host; where its files are of
 * several programs, by their names and by what they say, it is a place at least, and a machine where another folder has a file of the same name that says the same.
 *
 * @param beside all sources of the environment
 * @param hosts that records of it name
 * @returns component and host of a source, which may be those that it has
 */
export function namesByFolder(
  beside: readonly SourceBeside[],
  hosts: ReadonlySet<string>,
): (source: NamedSource) => { component: string; host: string } {
  const isHost = hostFolders(beside, hosts);
  const isHostFile = hostFiles(beside, hosts);
  const places = severalPrograms(beside);
  return (source) => {
    const folder = folderOf(source.path);
    const { component, host } = source;
    if (!folder) return { component, host };
    if (!source.hostFixed && host === '' && isHostFile(source.path)) return { component, host: bareName(fileOf(source.path)) };
    const machine = isHost(folder);
    const place = places.get(wholeOf(folder));
    if (!machine && place === undefined) return { component, host };
    const byFolder = component === componentOf(source.path);
    return {
      component: !source.componentFixed && byFolder ? componentOf(source.path, true) : component,
      host: !source.hostFixed && host === '' && (machine || place === 'machine') ? folder.name : host,
    };
  };
}
type Folder = NonNullable<ReturnType<typeof folderOf>>;
const wholeOf = ({ above, name }: Folder): string => `${above}/${name}`;
const fileOf = (path: string): string => path.slice(path.lastIndexOf('/') + 1);

function hostFolders(beside: readonly SourceBeside[], hosts: ReadonlySet<string>): (folder: Folder) => boolean {
  const byPlace = new Map<string, Set<string>>();
  for (const { path } of beside) {
    const folder = folderOf(path);
    if (!folder) continue;
    const names = byPlace.get(folder.above) ?? new Set<string>();
    byPlace.set(folder.above, names.add(folder.name));
  }
  const many = new Set<string>();
  for (const [above, names] of byPlace) {
    const known = [...names].filter((name) => hosts.has(name)).length;
    if (known >= FEWEST && known >= names.size * SHARE) many.add(above);
  }
  return ({ name, above }) => hosts.has(name) || many.has(above);
}

/** Whether a file has the name of a machine: records name it as a host, or it is one of many such that do. */
function hostFiles(beside: readonly SourceBeside[], hosts: ReadonlySet<string>): (path: string) => boolean {
  /** The file's name, where it tells something else than what wrote it. */
  const nameOf = (path: string): string => {
    const name = bareName(fileOf(path));
    return name === componentOf(path) ? '' : name;
  };
  const named = new Set(beside.map(({ path }) => nameOf(path)).filter((name) => name !== ''));
  const known = [...named].filter((name) => hosts.has(name)).length;
  const many = known >= FEWEST && known >= named.size * SHARE;
  return (path) => {
    const name = nameOf(path);
    return name !== '' && (hosts.has(name) || (many && /\d/.test(name)));
  };
}

/** Folders whose files are of several programs. */
function severalPrograms(beside: readonly SourceBeside[]): Map<string, 'place' | 'machine'> {
  const byFolder = new Map<string, SourceBeside[]>();
  for (const source of beside) {
    const folder = folderOf(source.path);
    if (!folder) continue;
    const own = byFolder.get(wholeOf(folder));
    if (own) own.push(source);
    else byFolder.set(wholeOf(folder), [source]);
  }
  const found = new Map<string, 'place' | 'machine'>();
  for (const [folder, own] of byFolder) {
    if (!holdsSeveral(folder.slice(folder.lastIndexOf('/') + 1), own.map((one) => fileOf(one.path)))) continue; // prettier-ignore
    const programs = new Map<string, SourceBeside>();
    for (const one of own)
      if (one.shapes.length >= FEWEST_SHAPES) programs.set(componentOf(one.path, true), programs.get(componentOf(one.path, true)) ?? one);
    const pairs = [...programs.values()].flatMap((one, i, all) => all.slice(i + 1).map((other) => saysTheSame(one, other)));
    // two instances of one program lie beside each other too
    if (pairs.length > 0 && !pairs.includes(true)) found.set(folder, 'place');
  }
  for (const folder of found.keys()) {
    const own = byFolder.get(folder)!;
    const elsewhere = [...found.keys()].filter((other) => other !== folder).flatMap((other) => byFolder.get(other)!);
    if (own.some((one) => elsewhere.some((other) => fileOf(other.path) === fileOf(one.path) && saysTheSame(one, other))))
      found.set(folder, 'machine');
  }
  return found;
}
function saysTheSame({ shapes: a }: SourceBeside, { shapes: b }: SourceBeside): boolean {
  const other = new Set(b);
  return a.filter((shape) => other.has(shape)).length >= ONE_PROGRAM * Math.min(a.length, b.length) && a.length > 0 && b.length > 0;
}
