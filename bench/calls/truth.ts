/** As the permit office's truth tells them. */
export interface TrueCall {
  call_id: string;
  kind: string;
  outcome: string;
  caller: string;
  callee: string;
  final_status: number;
  post_dial_delay_ms: number | null;
  setup_ms: number | null;
  ring_ms: number | null;
  talk_ms: number | null;
}
export interface TrueRun {
  run_id: string;
  outcome: string;
  input_file: string;
}

/** What is right for a call: it was put through, turned away by the called side, or given up by the caller; one that the server could not take may be told as broken. */
export function rightFor({ outcome, final_status }: TrueCall): { outcomes: string[]; endedBy: 'caller' | 'called' } {
  if (outcome.startsWith('cancelled')) return { outcomes: ['refused'], endedBy: 'caller' };
  if (final_status >= 300) return { outcomes: final_status >= 500 ? ['refused', 'failed'] : ['refused'], endedBy: 'called' };
  return { outcomes: ['done', 'slow'], endedBy: 'caller' };
}
