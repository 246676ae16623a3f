import { readdir, readFile, stat } from 'node:fs/promises';
import { join, relative } from 'node:path';
import { gunzipSync } from 'node:zlib';
import { KEEP, STANDARD_KINDS, type IdentifierKind, type NormalForm } from '@fadenweg/core/identifiers';
import type { Declared, SourceFile } from '@fadenweg/core/understanding';
import type { Place, TrueTransaction } from '@fadenweg/standin';
import type { InPlaces } from './told.ts';

/** A world to judge by: its logs, what an administrator would declare, what really happened. */
export interface JudgedWorld {
  name: string;
  files: SourceFile[];
  declared: Declared;
  /** What happened; components of causes are told by those that speak at their places where the world's own names are others. */
  truth(told: InPlaces): TrueTransaction[];
  /** By strand, places that are neither right nor wrong for it. */
  neutral?: ReadonlyMap<string, ReadonlySet<Place>>;
}

/** Files below a folder, unpacked. */
export async function filesBelow(folder: string): Promise<SourceFile[]> {
  const files: SourceFile[] = [];
  for (const entry of await readdir(folder, { withFileTypes: true, recursive: true })) {
    if (!entry.isFile()) continue;
    const file = join(entry.parentPath, entry.name);
    const bytes = await readFile(file);
    files.push({
      path: relative(folder, file),
      bytes: file.endsWith('.gz') ? gunzipSync(bytes) : bytes,
      modified: Math.round((await stat(file)).mtimeMs) * 1000,
    });
  }
  return files.sort((a, b) => (a.path < b.path ? -1 : 1));
}

type KindFile = (Partial<Omit<IdentifierKind, 'normal'>> & Pick<IdentifierKind, 'name' | 'label' | 'role'> & { normal?: Partial<NormalForm> })[];
/** What is declared where kinds are, as the page does it: each kind of business number has its flow; what is not said of a supplied kind stays as it is. */
export async function declaredBy(kindsFile: string): Promise<Declared> {
  return declaring(JSON.parse(await readFile(kindsFile, 'utf8')) as KindFile);
}
export function declaring(own: KindFile): Declared {
  const supplied = new Map(STANDARD_KINDS.map((kind) => [kind.name, kind]));
  for (const kind of own) {
    const before = supplied.get(kind.name) ?? { patterns: [], fields: [], scope: 'global' as const, leaseMs: null, normal: KEEP };
    supplied.set(kind.name, { ...before, ...kind, normal: { ...before.normal, ...kind.normal } });
  }
  return { ...withFlows([...supplied.values()]), rules: [], zone: 'UTC' };
}
const withFlows = (kinds: IdentifierKind[]): Pick<Declared, 'kinds' | 'flows'> => ({
  kinds,
  flows: kinds.flatMap(({ name, label, role }) =>
    role === 'business' ? [{ name, label, kind: name, prefix: '', patienceMs: null, expects: [] }] : [],
  ),
});
