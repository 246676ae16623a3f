import { depthOf } from '../path/depth.ts';
import type { Path, StrandRecord } from '../path/types.ts';
import { amiss, type Amiss } from '../usual/amiss.ts';
import { SURELY } from '../usual/habits.ts';
import type { Usual } from '../usual/index-of.ts';
import { handedTwice } from './doubled.ts';
import type { JudgedLeg } from './leg.ts';
import { said, words } from './sentence.ts';
import { signatureOf } from './signature.ts';
import { lastReached, silence } from './stopped.ts';
import { SILENT } from './sure.ts';
import type { Finding, SentencePart, Verdict } from './types.ts';

/** Where the end is missing anyway, it only has to be said where: what so many good legs do is enough. */
const MOSTLY = 0.8;

/**
 * What never came in a leg whose end looks well: a success that was told to the client does not mean that all that had to follow did.
 *
 * @returns null where nothing is missing, or it cannot be known yet, or may have come where our evidence has a hole
 */
export function behindTheEnd({ records, path, usual, evidenceEnd, patience, reach }: JudgedLeg): Verdict | null {
  if (!usual || evidenceEnd - records[records.length - 1]!.at <= patience) return null;
  const seen = amiss(records, usual, SURELY).filter((one) => {
    const missing = missingComponent(one, records);
    return missing === null || reach(missing, records[one.record]!.at, patience).kind !== 'hole';
  });
  const one = gravest(seen, path);
  if (!one) return null;
  if (one.kind === 'doubled') return { outcome: 'doubled', findings: [handedTwice(records, one.record, one.first)] };
  return { outcome: 'stalled', findings: [findingOf(one, { records, evidenceEnd, usual })] };
}

/**
 * Where a leg without an end stopped, by what should have followed; null where that is not known better than by who spoke last.
 * Callers are silent because they wait: only who was called deeper than who spoke last fell silent by itself.
 */
export function stoppedAt({ records, path, usual }: Pick<JudgedLeg, 'records' | 'path' | 'usual'>): Amiss | null {
  if (!usual) return null;
  const last = lastReached(records);
  const seen = amiss(records, usual, MOSTLY).filter(
    ({ kind, record }) => kind !== 'doubled' && (kind !== 'unfinished' || record === last || depthOf(path, record) > depthOf(path, last)),
  );
  return gravest(seen, path);
}

/** What was handed on in vain before who lost it, that before who fell silent; of several who fell silent the one that was called by the others. */
function gravest(seen: readonly Amiss[], path: Path): Amiss | null {
  const order: Amiss['kind'][] = ['astray', 'untaken', 'unfinished', 'doubled'];
  const absent = seen.find((one) => one.kind === 'absent');
  const [first] = seen
    .filter(({ kind }) => kind !== 'absent')
    .sort((a, b) => order.indexOf(a.kind) - order.indexOf(b.kind) || depthOf(path, b.record) - depthOf(path, a.record) || b.record - a.record);
  if (!absent || first?.kind === 'astray') return first ?? null;
  if (first?.kind === 'untaken') {
    // who handed it on may have said more before it would have been taken up
    const later = absent.record > first.record && first.missing?.component === absent.missing.component;
    return later ? { ...first, record: absent.record } : first;
  }
  if (!first || first.record <= absent.record) return absent;
  // who spoke last fell silent; what it would have said may come only behind what another one says
  return first.kind === 'unfinished' && first.missing && first.missing.position > absent.missing.position
    ? { ...absent, record: first.record }
    : first;
}

export function missingComponent(one: Amiss, records: readonly StrandRecord[]): string | null {
  if (one.kind === 'doubled') return null;
  if (one.kind === 'astray') return one.missing;
  return one.missing?.component ?? (one.kind === 'unfinished' ? records[one.record]!.component : null);
}

/** @param telling index of an earlier record that tells this leg from the good ones, where there is one */
export function findingOf(one: Amiss, leg: Pick<JudgedLeg, 'records' | 'evidenceEnd' | 'usual'>, telling?: number): Finding {
  const { records, usual } = leg;
  if (one.kind === 'astray' && usual) return astray(records, one.record, one.missing, usual);
  const missing = one.kind === 'doubled' || one.kind === 'astray' ? null : one.missing;
  return silence(leg, one.record, telling, { saying: missing, component: missingComponent(one, records) });
}

function astray(records: readonly StrandRecord[], index: number, missing: string, usual: Usual): Finding {
  const record = records[index]!;
  const about = { kind: 'went-astray' as const, failedIn: record.component, component: record.component, missingNext: missing };
  const before = records.slice(0, index).findLastIndex(({ component, keys }) => component !== record.component && keys.some((key) => record.keys.includes(key))); // prettier-ignore
  const sentence: SentencePart[] = [
    words('Went astray: '),
    ...said(record, index),
    words('. None of '),
    words(`${usual.of.legs.toLocaleString('en')} good ones comes to `),
    { kind: 'component', text: record.component },
    words('; it never came to '),
    { kind: 'component', text: missing },
    words(', where they go.'),
  ];
  if (before >= 0) sentence.push(words(' It was handed on by '), ...said(records[before]!, before), words('.'));
  return {
    ...about,
    rank: 1,
    record: index,
    confidence: SILENT,
    evidence: before < 0 ? [index] : [before, index],
    sentence,
    excess: null,
    signature: signatureOf(about, record),
  };
}
