import { fieldsAgree } from './fields-agree.ts';
import { pairUp } from './pair-up.ts';
import type { Stretch, Told } from './types.ts';
import { common } from './words.ts';

/** Of one source's events over a stretch, so many have to be told by the other one. */
export const SHARE = 0.95;
/** Fewer say nothing: they may be alike by chance. */
const FEWEST = 10;
/** Of what tells events apart, so much of the one that says less has to stand in the other one. */
const CONTAINED = 0.97;
/** A verb makes another event of the same words: of a message, so much has to be said in the other one, unless that is a line of pairs without a message of its own. */
const SAID = 0.985;
const WHOLE_LINE = 0.9;
/** Two files of one machine may each add something of their own (a thread, a count): then their messages are the same, so much of them, of so many pairs. */
const EQUAL = 0.9;
const MOSTLY = 0.75;
/** The information of the rarest word that a pair shares, on the average, in bits: what is said again and again is said alike by many. */
const TOLD_APART = 3;
/** Two programs that hand something on write at different moments; one that writes two files does so within this, in microseconds. */
const AT_ONCE = 3_000;
const FINE = 1_000;

/** A stretch of one source, and what another one says in its time. */
export interface Beside {
  of: Stretch;
  among: Stretch;
}

/**
 * Whether all that a source tells, a few aside, is told by another one too: the same events, each once in both, by the same speaker.
 *
 * What a program and the proxy before it write of one request is alike as well, so common words do not do. What tells events apart (rare words and values, weighed by
 * the information in them, −log2 of their share) has to stand in the other one whole. Files of different names are of one program only where they are of one
 * machine, their messages are equal, and fine times are as near as those of one program are. Fields of one name have to agree, and hosts and components that
 * records name must not differ.
 *
 * @param beside stretches of it
 * @returns `if-mutual` where nobody says on which machine they are, and files have different names: they are the same only where the other one's are told by this one too
 */
export function tellsTheSame(beside: readonly Beside[]): 'yes' | 'if-mutual' | 'no' {
  const pairs: [Told, Told][] = [];
  let events = 0;
  for (const { of, among } of beside) {
    events += of.told.length;
    pairUp(of, among).forEach((place, i) => place >= 0 && pairs.push([of.told[i]!, among.told[place]!]));
  }
  if (pairs.length < FEWEST || pairs.length < SHARE * events) return 'no';
  const coarse = Math.max(...beside.flatMap(({ of, among }) => [of.coarse, among.coarse]));
  const shares = [sharesOf(beside.map((one) => one.of)), sharesOf(beside.map((one) => one.among))] as const;
  const one = named(pairs);
  const whole = one && contained(pairs, shares) && saidAlike(pairs);
  if (!whole && !(somewhere(pairs) && equal(pairs, shares))) return 'no';
  if (!bySameSpeaker(pairs) || !toldApart(pairs, shares[0]) || !fieldsAgree(pairs, one) || !(one || atOnce(pairs, coarse))) return 'no';
  return whole || pairs[0]![0].host !== '' ? 'yes' : 'if-mutual';
}

function bySameSpeaker(pairs: readonly [Told, Told][]): boolean {
  const differing = pairs.filter(
    ([a, b]) => (a.host !== '' && b.host !== '' && a.host !== b.host) || (a.named && b.named && a.component !== b.component),
  );
  return differing.length <= (1 - SHARE) * pairs.length;
}
/** Of one machine, or nobody says of which. */
const somewhere = (pairs: readonly [Told, Told][]): boolean => pairs.every(([a, b]) => a.host === b.host);
const named = (pairs: readonly [Told, Told][]): boolean => pairs.every(([a, b]) => a.component === b.component);

/** In which share of events each word stands, of the one and the other source. */
type Shares = readonly [Map<number, number>, Map<number, number>];

function sharesOf(stretches: readonly Stretch[]): Map<number, number> {
  const counts = new Map<number, number>();
  let all = 0;
  for (const { told } of stretches) {
    all += told.length;
    for (const { words } of told) for (const word of words) counts.set(word, (counts.get(word) ?? 0) + 1);
  }
  for (const [word, count] of counts) counts.set(word, count / all);
  return counts;
}

/** Whether what the ones that say less of each pair say stands in the others, weighed by what it tells. */
function contained(pairs: readonly [Told, Told][], shares: Shares, what: 'words' | 'said' = 'words'): boolean {
  // which of the two sources says less is the same for all its events
  const least = pairs.reduce((sum, [a, b]) => sum + a[what].length - b[what].length, 0) <= 0 ? 0 : 1;
  const own = shares[least];
  let [all, there] = [0, 0];
  for (const pair of pairs) {
    const other = new Set(pair[1 - least]!.words);
    for (const word of pair[least]![what]) {
      const information = -Math.log2(own.get(word)!);
      all += information;
      if (other.has(word)) there += information;
    }
  }
  return there >= CONTAINED * all;
}
/** Whether the shorter message of each pair is said in the other one, constant words too. */
function saidAlike(pairs: readonly [Told, Told][]): boolean {
  const least = pairs.reduce((sum, [a, b]) => sum + a.said.length - b.said.length, 0) <= 0 ? 0 : 1;
  let [all, there] = [0, 0];
  for (const pair of pairs) {
    const { words, said } = pair[1 - least]!;
    const own = pair[least]!.said;
    if (said.length >= WHOLE_LINE * words.length && said.length > own.length) continue;
    all += own.length;
    there += common(own, words);
  }
  return there >= SAID * all;
}

/** Whether messages are the same but for a few, of which one says more. */
function equal(pairs: readonly [Told, Told][], shares: Shares): boolean {
  const alike = pairs.filter(([a, b]) => {
    const both = common(a.said, b.said);
    return both >= EQUAL * (a.said.length + b.said.length - both);
  });
  return alike.length >= MOSTLY * pairs.length && contained(pairs, shares, 'said');
}
/** Whether pairs are such by more than their time. */
function toldApart(pairs: readonly [Told, Told][], shares: Map<number, number>): boolean {
  let bits = 0;
  for (const [a, b] of pairs) {
    const other = new Set(b.words);
    bits += a.words.reduce((most, word) => (other.has(word) ? Math.max(most, -Math.log2(shares.get(word)!)) : most), 0);
  }
  return bits >= TOLD_APART * pairs.length;
}
function atOnce(pairs: readonly [Told, Told][], coarse: number): boolean {
  if (coarse > FINE) return true;
  const apart = pairs.map(([a, b]) => b.at - a.at).sort((a, b) => a - b);
  const middle = apart[apart.length >> 1]!;
  return apart.filter((one) => Math.abs(one - middle) <= AT_ONCE).length >= 0.9 * apart.length;
}
