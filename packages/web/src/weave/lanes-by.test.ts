import { describe, expect, test } from '@jest/globals';
import type { Strand, StrandLine } from '@fadenweg/api';
import { lanesBy } from './lanes-by.ts';

const at = (component: string, host = ''): { component: string; host: string } => ({ component, host });
const strand = {
  steps: [at('stock-sync', 'app-1'), at('stock-store', 'app-2'), at('desk', 'app-1'), at('labdb')],
  findings: [at('stock-store'), at('nobody')],
} as unknown as Strand;
const lines = [at('stock-sync', 'app-1'), at('labdb'), at('desk', 'app-1')] as unknown as StrandLine[];
const lanes = (by: 'component' | 'host' | 'system') => {
  const put = lanesBy(strand, lines, by);
  return { steps: put.strand.steps.map((one) => one.component), findings: put.strand.findings.map((one) => one.component), lines: put.lines.map((one) => one.component) }; // prettier-ignore
};

describe('lanes', () => {
  test('by component are as they are', () => expect(lanesBy(strand, lines, 'component')).toEqual({ strand, lines }));
  test('by host put together what runs on one; what has none stands for itself', () => {
    expect(lanes('host')).toEqual({ steps: ['app-1', 'app-2', 'app-1', 'labdb'], findings: ['app-2', 'nobody'], lines: ['app-1', 'labdb', 'app-1'] });
  });
  test('by system put together names that begin alike', () => {
    expect(lanes('system')).toEqual({ steps: ['stock', 'stock', 'desk', 'labdb'], findings: ['stock', 'nobody'], lines: ['stock', 'labdb', 'desk'] });
  });
  test('do not change the strand that they are made of', () => {
    const before = JSON.stringify(strand);
    lanesBy(strand, lines, 'host');
    expect(JSON.stringify(strand)).toBe(before);
  });
});
