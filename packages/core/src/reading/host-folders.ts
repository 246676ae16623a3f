import { componentOf, folderOf } from './source-naming.ts';

/** So many folders beside each other have to be hosts that records name, and so large a part of them, before the others count as hosts too. */
const FEWEST = 2;
const SHARE = 0.3;

/** What a source is named by, and whether a person or its records said so. */
export interface NamedSource {
  path: string;
  component: string;
  host: string;
  componentFixed: boolean;
  hostFixed: boolean;
}

/**
 * Names of sources that lie in folders of machines: those name the host, and the files in them what wrote them.
 *
 * @param beside all sources of the environment
 * @param hosts that records of it name
 * @returns component and host of a source, which may be those that it has
 */
export function namesByFolder(
  beside: readonly { path: string }[],
  hosts: ReadonlySet<string>,
): (source: NamedSource) => { component: string; host: string } {
  const isHost = hostFolders(beside, hosts);
  return (source) => {
    const folder = folderOf(source.path);
    const { component, host } = source;
    if (!folder || !isHost(folder)) return { component, host };
    const byFolder = component === componentOf(source.path);
    return {
      component: !source.componentFixed && byFolder ? componentOf(source.path, true) : component,
      host: !source.hostFixed && host === '' ? folder.name : host,
    };
  };
}

function hostFolders(beside: readonly { path: string }[], hosts: ReadonlySet<string>): (folder: { name: string; above: string }) => boolean {
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
