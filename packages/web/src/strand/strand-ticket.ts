import type { Strand, StrandLine } from '@fadenweg/api';
import { callText } from '../calls/call-words.ts';
import { standingWords } from '../faults/fault-words.ts';
import { OUTCOME_WORDS } from '../glyphs/outcomes.ts';
import { rowsWords } from '../jobs/job-words.ts';
import type { useShare } from '../share/use-share.ts';

/** Copies the sentence, what a strand tells as a call or a run, its fault, and the lines that tell: of each finding, in order of time. */
export function strandTicket({ copyTicket }: ReturnType<typeof useShare>, strand: Strand, lines: readonly StrandLine[]): void {
  const telling = new Set(strand.findings.flatMap((finding) => [finding.record.id, ...finding.evidence]));
  const title = `${strand.name}${strand.flowLabel ? ` (${strand.flowLabel})` : ''}`;
  const facts = [
    strand.call && callText(strand.call),
    strand.rows && `Rows: ${rowsWords(strand.rows)}`,
    strand.fault && `Fault: ${strand.fault.title} in ${strand.fault.component}, ${standingWords(strand.fault)}`,
  ].filter(Boolean);
  void copyTicket(lines.filter((one) => telling.has(one.id)), title, strand.findings[0]?.sentence ?? OUTCOME_WORDS[strand.outcome], facts.join('\n')); // prettier-ignore
}
