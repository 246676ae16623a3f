import { copiesAmong, type CopyFound } from './copies-among.ts';
import { Sampler, type ComparedEvidence, type ComparedSource } from './sampler.ts';

/** How far the ends of two sources that tell the same may be apart. */
const APART = 1_000_000;

/**
 * Which sources of one environment are copies of which, told by samples of what they say at the same times.
 *
 * @param sources only pairs of which one has grown are compared
 */
export async function findCopies(sources: readonly ComparedSource[], evidence: ComparedEvidence): Promise<Map<number, CopyFound>> {
  const overlap = (a: ComparedSource, b: ComparedSource): boolean => a.first <= b.last + APART && b.first <= a.last + APART;
  const sampler = new Sampler(evidence, sources);
  const told = new Map<number, Map<number, 'yes' | 'if-mutual'>>();
  const compared = new Set<ComparedSource>();
  for (const one of sources) {
    const others = sources.filter((other) => other.family !== one.family && (one.grown || other.grown) && overlap(one, other));
    if (others.length === 0) continue;
    told.set(one.id, await sampler.within(one, others));
    compared.add(one);
    for (const other of others) compared.add(other);
  }
  const counts = (id: number, other: number, how: 'yes' | 'if-mutual'): boolean => how === 'yes' || (told.get(other)?.has(id) ?? false);
  const within = new Map(
    [...told].map(([id, others]) => [id, new Set([...others].flatMap(([other, how]) => (counts(id, other, how) ? [other] : [])))]),
  );
  return copiesAmong([...compared].map((one) => sampler.teller(one)), within); // prettier-ignore
}
