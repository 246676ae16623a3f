import { reachOf, type Reach } from '../coverage/reach.ts';
import { flowOf } from '../findings/flow-of.ts';
import type { Twin } from '../findings/doubled.ts';
import { judgeStrand } from '../findings/judge-strand.ts';
import type { FlowRules } from '../findings/types.ts';
import { arranged } from '../path/arrange.ts';
import { excerptOf } from '../path/excerpt.ts';
import { pathOf } from '../path/path.ts';
import type { StrandRecord } from '../path/types.ts';
import { tellingParts } from '../shapes/measures.ts';
import { Usual } from '../usual/index-of.ts';
import { flowBeginning, isStrand, loudest } from '../usual/begins.ts';
import type { Lesson } from '../usual/good-ones.ts';
import { learnUsual } from '../usual/learn.ts';
import { ChosenLessons, lessonOf } from '../usual/lessons.ts';
import { UNLEARNED } from '../usual/patience.ts';
import type { Microseconds } from '../units.ts';
import type { IdentifierKind } from '../identifiers/types.ts';
import type { HeldSource } from './held-source.ts';
import type { HeldRecord, StrandName, UnderstoodStrand } from './types.ts';
import { gathered, type Tied } from './woven.ts';

/** Most records of one strand that its path is worked out from. */
const MOST_RECORDS = 20_000;
/** Most parties of one. */
const MOST_PARTIES = 20;

interface Open extends Omit<UnderstoodStrand, 'outcome' | 'findings' | 'legs' | 'flow'> {
  rules: FlowRules | null;
  total: number;
  /** Keys of what it shares with others. */
  parties: number[];
}

/** Learns what is usual for each flow and judges every strand. */
export function judgedStrands(
  sources: readonly HeldSource[],
  tied: Tied,
  kinds: readonly IdentifierKind[],
  flows: readonly FlowRules[],
): UnderstoodStrand[] {
  const open = openStrands(sources, tied, kinds, flows);
  const spoken = sources.filter((one) => one.records.length > 0);
  const telling = spoken.filter((one) => one.understood > 0);
  const evidenceEnd = Math.max(...(telling.length > 0 ? telling : spoken).map((one) => one.last));
  const usual = learned(open, flows, evidenceEnd, mostlyIn(spoken));
  const spans = spoken.map(({ about: { component }, first: from, last: to }) => ({ component, from, to }));
  const reaches = new Map(
    flows.map((flow): [string, Reach] => [flow.name, reachOf(spans, flow.patienceMs === null ? UNLEARNED : flow.patienceMs * 1000)]),
  );
  const isNumbered = (kind: string): boolean => kinds.find((one) => one.name === kind)!.role === 'business';
  const strands = open.flatMap((one) => {
    if (isNumbered(one.kind)) return [one];
    const begins = flowBeginning(usual, one.records[0]!);
    const rules = flows.find((flow) => flow.name === begins) ?? null;
    return [{ ...one, rules }];
  });
  const twins = twinsOf(strands, tied, kinds);
  return strands.flatMap(({ rules, total, parties: _parties, ...strand }) => {
    const verdict = judgeStrand({
      records: strand.records,
      path: strand.path,
      flow: rules,
      evidenceEnd,
      usual: (rules && usual.get(rules.name)) ?? null,
      reach: (rules && reaches.get(rules.name)) ?? (() => ({ kind: 'there' })),
      twin: twins.get(strand.founder) ?? null,
    });
    const told = isNumbered(strand.kind) || isStrand(rules, verdict.outcome, total, loudest(strand.records), flows.length > 0);
    return told ? [{ ...strand, flow: rules?.name ?? null, ...verdict }] : [];
  });
}

function openStrands(sources: readonly HeldSource[], tied: Tied, kinds: readonly IdentifierKind[], flows: readonly FlowRules[]): Open[] {
  const { graph, found, names } = tied;
  const own = new Map<number, StrandName[]>();
  const nameOf = (key: number): StrandName => {
    const { kind, value } = names.get(key)!;
    return { kind: kinds[kind]!.name, value, role: kinds[kind]!.role };
  };
  const owns = (founder: number, node: number): void => {
    if (founder < 0) return;
    const list = own.get(graph.keyOf(founder)) ?? [];
    own.set(graph.keyOf(founder), list);
    list.push(nameOf(graph.keyOf(node)));
  };
  for (let node = 0; node < found.founder.length; node++) owns(found.founder[node]!, node);
  for (let i = 0; i < found.leases.length; i++) owns(found.leases.founder[i]!, found.leases.node[i]!);
  return [...gathered(sources, tied.ownerAt, true)]
    .sort(([a], [b]) => a - b)
    .map(([founder, all]) => {
      const { kind, value } = nameOf(founder);
      const some = all.slice(0, MOST_RECORDS);
      const { records, places } = arranged(some.map(strandRecord));
      const parties = partiesOf(records, tied);
      return {
        founder,
        kind,
        value,
        rules: flowOf(flows, kind, value),
        path: pathOf(records, graph.isLink),
        records,
        held: places.map((place) => some[place]!),
        total: all.length,
        parties,
        identifiers: [...(own.get(founder) ?? []), ...parties.map(nameOf)],
      };
    });
}
const strandRecord = ({ at, id, component, host, level, marks, took, message, shape, traits, keys }: HeldRecord): StrandRecord => ({
  at,
  id: String(id),
  component,
  host,
  level,
  marks,
  took,
  message: excerptOf(message),
  shape,
  ...tellingParts(traits),
  keys,
});
function partiesOf(records: readonly StrandRecord[], { graph }: Tied): number[] {
  const found = new Set<number>();
  for (const key of records.flatMap((one) => one.keys)) {
    const node = graph.node(key);
    if (found.size < MOST_PARTIES && node >= 0 && graph.isShared(node)) found.add(key);
  }
  return [...found];
}

function learned(open: readonly Open[], flows: readonly FlowRules[], evidenceEnd: Microseconds, zone: string): Map<string, Usual> {
  const choosing = new ChosenLessons();
  for (const { founder, rules } of open) if (rules) choosing.note(founder, rules);
  const chosen = choosing.chosen();
  const lessons = new Map<string, Lesson[]>(flows.map((flow) => [flow.name, []]));
  for (const { founder, records, path, total } of open) {
    const flow = chosen.get(founder);
    const lesson = flow && lessonOf(records, path, flow, evidenceEnd, total);
    if (lesson) lessons.get(flow.name)!.push(lesson);
  }
  const known = new Map<string, Usual>();
  for (const [name, own] of lessons) {
    const usual = learnUsual(name, own, zone);
    // as plain data, as it is kept everywhere
    if (usual) known.set(name, new Usual(JSON.parse(JSON.stringify(usual)) as typeof usual));
  }
  return known;
}
/** The zone in which most records are told. */
function mostlyIn(spoken: readonly HeldSource[]): string {
  const counts = new Map<string, number>();
  for (const { zone, records } of spoken) counts.set(zone, (counts.get(zone) ?? 0) + records.length);
  return [...counts].sort(([a, many], [b, more]) => more - many || (a < b ? -1 : 1))[0]?.[0] ?? 'UTC';
}

/** By founder, the earlier strand of the same flow with which it shares an identifier that belongs to one only. */
function twinsOf(open: readonly Open[], { names }: Tied, kinds: readonly IdentifierKind[]): Map<number, Twin> {
  const once = (key: number): boolean => {
    const kind = kinds[names.get(key)!.kind]! as IdentifierKind & { once?: boolean };
    return kind.role === 'shared' && kind.once === true;
  };
  const first = new Map<string, Open>();
  const inTime = [...open].sort((a, b) => a.path.startedAt - b.path.startedAt || a.founder - b.founder);
  const twins = new Map<number, Twin>();
  for (const strand of inTime) {
    if (!strand.rules) continue;
    for (const key of [...strand.parties].sort((a, b) => a - b)) {
      if (!once(key)) continue;
      const place = `${strand.rules.name} ${key}`;
      const earlier = first.get(place);
      if (!earlier) first.set(place, strand);
      else if (!twins.has(strand.founder)) {
        const { kind, value } = names.get(key)!;
        twins.set(strand.founder, { key, label: kinds[kind]!.label, value, of: earlier.value });
      }
    }
  }
  return twins;
}
