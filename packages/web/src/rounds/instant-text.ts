import type { Instant } from '@fadenweg/api';
import { OUTCOME_WORDS } from '../glyphs/outcomes.ts';
import { ms } from '../strands/duration-text.ts';
import { clock, dayAndClock, ZONE } from '../time/format.ts';

/** The state at an instant as a text for a hand-over: a line for each flow, then what was in force. */
export function instantText({ at, flows, states, clocks, speaking, silent }: Instant): string {
  const lines = [`The state at ${dayAndClock(at)} (${ZONE})`, ''];
  for (const { label, running, overdue, usualMs, longest, lastAmiss, lastGood } of flows) {
    const parts = [`${running} running`];
    if (longest) parts.push(`the longest ${longest.name} for ${ms(longest.forMs)}${usualMs === null ? '' : `, usual ${ms(usualMs)}`}`);
    if (overdue > 0) parts.push(`${overdue} over the usual`);
    if (lastAmiss) parts.push(`last ${OUTCOME_WORDS[lastAmiss.outcome]} ${lastAmiss.name} at ${clock(lastAmiss.at, 0)}: ${lastAmiss.headline}`);
    if (lastGood) parts.push(`last done ${lastGood.name} at ${clock(lastGood.at, 0)}`);
    lines.push(`${label}: ${parts.join('; ')}`);
  }
  lines.push('');
  for (const { host, component, aheadMs } of clocks)
    lines.push(`Clock of ${host || component}: ${ms(Math.abs(aheadMs))} ${aheadMs > 0 ? 'ahead' : 'behind'}`);
  for (const { component, host, subject, value } of states) lines.push(`${component || host} ${subject}: ${value}`);
  lines.push(`Sources that spoke: ${speaking.join(', ') || 'none'}`);
  if (silent.length > 0) lines.push(`Silent then: ${silent.join(', ')}`);
  return lines.join('\n');
}
