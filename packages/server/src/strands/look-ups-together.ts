import DataLoader from 'dataloader';
import type { KnownCause } from '@fadenweg/api';
import { ALWAYS, type EdgeRow, type Named, type TieRow } from '../evidence/identifiers.ts';
import type { RecordRow } from '../evidence/record-layout.ts';
import type { OfStrand } from '../evidence/records.ts';
import { reachByFlow } from '../weaving/reach.ts';
import type { StrandRow } from '../weaving/strand-rows.ts';
import { Gate } from '../platform/gate.ts';
import type { LookUpRows, LookUps, Similar } from './look-ups.ts';

/** Strands with more records are looked up by themselves. */
const LONG = 2000;
/** Connections that one export takes of those that all share. */
const AT_ONCE = 3;
const MOST_NAMES = 200_000;

/**
 * Look-ups of many strands that are worked out side by side: what all of them ask for at one time is one query, and what many have in common (paths of
 * sources, strands with the same finding) is asked for once. For one export.
 */
export function lookUpsTogether(rows: LookUpRows): LookUps {
  const { strands, records, identifiers, declarations, sources, presenter, changes } = rows;
  const gate = new Gate(AT_ONCE);
  const names = new Map<number, Named>();
  const paths = new Map<number, { path: string }>();
  const similar = new Map<string, Promise<FirstAlike>>();
  const once = { cache: false } as const;

  const ties = new DataLoader<number, TieRow[]>((founders) => gate.pass(() => identifiers.tiesOfAll(founders)), once);
  const edges = new DataLoader<readonly number[], EdgeRow[]>((groups) => gate.pass(() => identifiers.edgesAmongEach(groups)), once);
  const found = new DataLoader<OfStrand, RecordRow[]>((asked) => recordsOf(asked), once);
  const relatedRows = new DataLoader<number, StrandRow[]>((founders) => gate.pass(() => strands.relatedOfAll(founders)), once);
  const first = new DataLoader<{ flow: string; party: number }, Pick<StrandRow, 'founder' | 'value'> | undefined>(
    (asked) => gate.pass(() => strands.firstOfEach(asked)),
    once,
  );
  const known = new DataLoader<string, KnownCause[]>(
    (signatures) =>
      gate.pass(async () => {
        const causes = await changes.causes([...new Set(signatures)]);
        return signatures.map((one) => causes.get(one) ?? []);
      }),
    once,
  );
  const naming = new DataLoader<readonly number[], Map<number, Named>>(
    (groups) =>
      gate.pass(async () => {
        if (names.size > MOST_NAMES) names.clear();
        const missing = groups.flat().filter((key) => !names.has(key));
        for (const [key, one] of await identifiers.named(missing)) names.set(key, one);
        return groups.map((keys) => new Map(keys.flatMap((key) => (names.has(key) ? [[key, names.get(key)!] as const] : []))));
      }),
    once,
  );
  async function recordsOf(asked: readonly OfStrand[]): Promise<RecordRow[][]> {
    const dense = await gate.pass(() => records.areDense(asked));
    const together = dense ? asked : asked.filter(({ ties: own }) => own.every((tie) => tie.valid_to === ALWAYS));
    const all = await gate.pass(() => records.ofStrands(together, dense));
    return Promise.all(
      asked.map(
        ({ founder, ties: own, from, to, records: count }) =>
          all.get(founder) ?? gate.pass(() => records.ofStrand(founder, own, from, to, null, count)),
      ),
    );
  }
  let end: Promise<number> | null = null;
  let reach: Promise<ReturnType<typeof reachByFlow>> | null = null;

  const look: LookUps = {
    tiesOf: (founder) => ties.load(founder),
    named: (keys) => (keys.length === 0 ? Promise.resolve(new Map()) : naming.load(keys)),
    edgesAmong: (keys) => edges.load(keys),
    records: (row, own, from, limit) =>
      row.records <= Math.min(limit, LONG)
        ? found.load({ founder: row.founder, ties: own, from, to: row.ended_at, records: row.records })
        : gate.pass(() => records.ofStrand(row.founder, own, from, row.ended_at, null, limit)),
    async paths(ids) {
      const missing = ids.filter((id) => !paths.has(id));
      if (missing.length > 0) for (const [id, one] of await gate.pass(() => sources.byIds(missing))) paths.set(id, one);
      return paths;
    },
    evidenceEnd: () => (end ??= sources.evidenceEnd()),
    reach: async (flow) => (await (reach ??= sources.spans().then(reachByFlow)))(flow),
    async related(founder) {
      const others = await relatedRows.load(founder);
      return presenter.summariesBy(others, await declarations.flows(), await look.named(others.flatMap((row) => [row.founder, ...row.parties])));
    },
    async similar(signature, except): Promise<Similar> {
      const asked = similar.get(signature) ?? gate.pass(() => strands.firstAlike(signature));
      similar.set(signature, asked);
      const { count, first: firsts } = await asked;
      const own = await strandHas(signature, except);
      return { count: count - (own ? 1 : 0), since: firsts.find((one) => one.founder !== except)?.startedAt ?? null };
    },
    firstOf: (flow, party) => first.load({ flow, party }),
    async causes(signatures) {
      const lists = await Promise.all(signatures.map((one) => known.load(one)));
      return new Map(signatures.map((one, i) => [one, lists[i]!]));
    },
  };
  const signatureOf = new DataLoader<number, string | null>((founders) => gate.pass(() => strands.signatures(founders)), once);
  const strandHas = async (signature: string, founder: number): Promise<boolean> => (await signatureOf.load(founder)) === signature;
  return look;
}
type FirstAlike = { count: number; first: { founder: number; startedAt: number }[] };
