import type { Runbook, RunbookStep, StepLook } from '@fadenweg/core/runbooks';

export const LOOKS: Record<StepLook['what'], () => StepLook> = {
  records: () => ({ what: 'records', q: '', by: 'strand' }),
  strands: () => ({ what: 'strands', identifier: '', flow: '', outcome: '', failedIn: '', component: '', by: 'finding', among: '' }),
  changes: () => ({ what: 'changes', component: '' }),
};
export const emptyStep = (number: number): RunbookStep => ({
  name: `step-${number}`,
  title: '',
  look: LOOKS.records(),
  around: null,
  found: '',
  nothing: '',
});
export const emptyRunbook = (): Runbook => ({ name: 'mine', title: '', about: '', blanks: [], steps: [emptyStep(1)], finding: [] });
/** A name as runbooks have it, from a title. */
export const slugOf = (title: string): string =>
  title
    .toLowerCase()
    .normalize('NFD')
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .slice(0, 40) || 'runbook';

/** A runbook of its own, also of one that the page watches. */
export const copyOf = (runbook: Runbook): Runbook => JSON.parse(JSON.stringify(runbook)) as Runbook;
