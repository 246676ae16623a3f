import type { StrandRecord } from '../path/types.ts';
import { LIKELY } from './sure.ts';
import type { Finding, FlowRules } from './types.ts';
import { firstLine } from './sentence.ts';
import { signatureOf } from './signature.ts';

/** A run that ended without an error but stated a volume outside of what is declared for its flow, or null. */
export function volumeFinding(records: readonly StrandRecord[], flow: FlowRules): Finding | null {
  for (const { words, min, max } of flow.expects) {
    const literal = words.replace(/[^\w ]/g, '\\$&');
    const pattern = new RegExp(`\\b${literal}[=: ]+(\\d+)\\b|\\b(\\d+) ${literal}\\b`);
    for (let index = 0; index < records.length; index++) {
      const record = records[index]!;
      const hit = pattern.exec(firstLine(record.message));
      if (!hit) continue;
      const count = Number(hit[1] ?? hit[2]);
      if (count >= min && (max === null || count <= max)) continue;
      const about = { kind: 'odd-volume' as const, failedIn: record.component, component: record.component, missingNext: null };
      return {
        ...about,
        rank: 1,
        excess: null,
        signature: signatureOf(about, record),
        record: index,
        confidence: LIKELY,
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
      };
    }
  }
  return null;
}
