import { understand, type Declared, type SourceFile } from '@fadenweg/core/understanding';
import { ALTERATIONS, generateChance, type Alteration, type DrawnWorld, type Place } from '@fadenweg/standin';
import { inPlaces } from './judge/told.ts';
import { declaring } from './judge/world.ts';
import type { Result } from './measure.ts';

const FROM = 1001;
const WORLDS = Number(process.env.FADENWEG_BENCH_DRAWN ?? 10);
const TRANSACTIONS = Number(process.env.FADENWEG_BENCH_TRANSACTIONS ?? 250);
/** Two strands are the same where they have so much of their records in common. */
const ALIKE = 0.9;

type How = Alteration | 'order' | 'beside';
const HOWS: readonly How[] = [...ALTERATIONS, 'order', 'beside'];
const WORDS: Record<How, string> = {
  words: 'words that nobody knows',
  levels: 'no levels',
  names: 'components renamed',
  times: 'other layouts of times',
  clock: 'a host three seconds off',
  order: 'files in another order',
  beside: 'an unrelated system beside it',
};

/** What must not matter: the same worlds written otherwise have to come to the same strands and first causes, whatever is right. */
export async function benchSame(): Promise<Result[]> {
  const shares = new Map<How, { strands: number[]; causes: number[] }>(HOWS.map((how) => [how, { strands: [], causes: [] }]));
  for (let seed = FROM; seed < FROM + WORLDS; seed++) {
    const world = generateChance(seed, TRANSACTIONS);
    const before = await told(world.files, declaring(world.kinds), world);
    for (const how of HOWS) {
      const { files, other, kinds } = changed(seed, world, how);
      const { strands, causes } = compared(before, await told(files, declaring(kinds), other));
      shares.get(how)!.strands.push(strands);
      shares.get(how)!.causes.push(causes);
    }
    console.error(
      `seed ${seed}: ${HOWS.map((how) => `${how} ${shares.get(how)!.strands.at(-1)!.toFixed(3)} ${shares.get(how)!.causes.at(-1)!.toFixed(3)}`).join(', ')}`,
    );
  }
  const mean = (list: readonly number[]): string => (list.reduce((sum, one) => sum + one, 0) / list.length).toFixed(3);
  return HOWS.map((how) => ({
    what: `${WORDS[how]}: strands that stay; outcome and first cause that stay, over ${WORLDS} worlds`,
    figure: `${mean(shares.get(how)!.strands)}; ${mean(shares.get(how)!.causes)}`,
    raw: '',
    ratio: '',
    budget: how === 'words' ? '≥ 0.93' : '≥ 0.97',
  }));
}

function changed(seed: number, world: DrawnWorld, how: How): { files: SourceFile[]; other: DrawnWorld; kinds: DrawnWorld['kinds'] } {
  if (how === 'order') return { files: [...world.files].reverse(), other: world, kinds: world.kinds };
  if (how === 'beside') {
    const strange = generateChance(seed + 50_000, TRANSACTIONS).files.map((file) => ({ ...file, path: `beside/${file.path}` }));
    return { files: [...world.files, ...strange], other: world, kinds: world.kinds };
  }
  const other = generateChance(seed, TRANSACTIONS, how);
  return { files: other.files, other, kinds: other.kinds };
}

/** Strands by the places of their records: the number of their file in the world, and of the record in it. */
async function told(
  files: readonly SourceFile[],
  declared: Declared,
  { files: own }: DrawnWorld,
): Promise<Map<Place, { records: Set<Place>; says: string }>> {
  const understood = await understand(files, declared);
  const fileOf = new Map(own.map(({ path }, i) => [path, i]));
  // of a log's parts, and of instances, the first file
  const components = new Map<string, number>();
  for (const { component, path } of understood.sources)
    components.set(component, Math.min(components.get(component) ?? Infinity, fileOf.get(path) ?? Infinity));
  const order = ordinals(understood.records.map(({ source, line }) => ({ path: understood.sources[source]!.path, line })));
  const byPlace = new Map<Place, { records: Set<Place>; says: string }>();
  for (const { records, outcome, findings } of inPlaces(understood).strands) {
    const places = records.flatMap(({ place }) => {
      const file = fileOf.get(place.slice(0, place.lastIndexOf(':')));
      return file === undefined ? [] : [`${file}:${order.get(place)!}`];
    });
    const [first] = findings;
    const strand = { records: new Set(places), says: `${outcome} ${first ? components.get(first.component) : ''}` };
    for (const place of places) byPlace.set(place, strand);
  }
  return byPlace;
}
/** By path and line, the number of the record in its file. */
function ordinals(records: readonly { path: string; line: number }[]): Map<Place, number> {
  const counts = new Map<string, number>();
  const found = new Map<Place, number>();
  for (const { path, line } of [...records].sort((a, b) => (a.path < b.path ? -1 : a.path > b.path ? 1 : a.line - b.line))) {
    found.set(`${path}:${line}`, counts.get(path) ?? 0);
    counts.set(path, (counts.get(path) ?? 0) + 1);
  }
  return found;
}

function compared(before: ReadonlyMap<Place, { records: Set<Place>; says: string }>, after: typeof before): { strands: number; causes: number } {
  let [all, strands, causes] = [0, 0, 0];
  for (const one of new Set(before.values())) {
    all++;
    const other = [...one.records].map((place) => after.get(place)).find((found) => found !== undefined);
    if (!other) continue;
    const common = [...one.records].filter((place) => other.records.has(place)).length;
    if (common < ALIKE * Math.max(one.records.size, other.records.size)) continue;
    strands++;
    if (one.says === other.says) causes++;
  }
  return { strands: strands / all, causes: causes / all };
}
