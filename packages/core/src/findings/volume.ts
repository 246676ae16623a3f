import type { JudgedLeg } from './leg.ts';
import { DECLARED } from './sure.ts';
import type { Finding, FlowRules } from './types.ts';
import { firstLine } from './sentence.ts';
import { signatureOf } from './signature.ts';

/** A number, also with commas between thousands; none that is a part of a word or of a longer number. */
const NUMBER = String.raw`(?<![\p{L}\p{N}_.,])(\d{1,3}(?:,\d{3})+|\d+(?:\.\d+)?)(?![\p{L}\p{N}_]|[.,]\d)`;
const patterns = new WeakMap<FlowRules['expects'][number], RegExp>();

/** The number before declared words, or behind them with a colon or an equals sign. */
function patternOf(one: FlowRules['expects'][number]): RegExp {
  let pattern = patterns.get(one);
  if (!pattern) {
    const literal = one.words.replace(/[\\^$.*+?()[\]{}|/]/g, '\\$&');
    pattern = new RegExp(`(?<![\\p{L}\\p{N}_])${literal}[=: ]+${NUMBER}|${NUMBER} ${literal}(?![\\p{L}\\p{N}_])`, 'u');
    patterns.set(one, pattern);
  }
  return pattern;
}

/** The first volume that a run stated outside of what is declared for its flow, where it ended without an error. */
export function oddVolumes({ records, flow }: Pick<JudgedLeg, 'records' | 'flow'>): Finding[] {
  for (const expected of flow?.expects ?? []) {
    const { min, max } = expected;
    const pattern = patternOf(expected);
    for (let index = 0; index < records.length; index++) {
      const record = records[index]!;
      const hit = pattern.exec(firstLine(record.message));
      if (!hit) continue;
      const count = Number((hit[1] ?? hit[2])!.replaceAll(',', ''));
      if (count >= min && (max === null || count <= max)) continue;
      const about = { kind: 'odd-volume' as const, failedIn: record.component, component: record.component, missingNext: null };
      return [
        {
          ...about,
          rank: 1,
          excess: null,
          signature: signatureOf(about, record),
          record: index,
          confidence: DECLARED,
          evidence: [index],
          sentence: [
            { kind: 'words', text: 'Ended without an error in ' },
            { kind: 'component', text: record.component },
            { kind: 'words', text: ', but ' },
            { kind: 'time', at: record.at },
            { kind: 'words', text: ': ' },
            { kind: 'quote', text: firstLine(record.message), record: index },
            { kind: 'words', text: `. Expected: ${min.toLocaleString('en')}${max === null ? ' or more' : ` to ${max.toLocaleString('en')}`}.` },
          ],
        },
      ];
    }
  }
  return [];
}
