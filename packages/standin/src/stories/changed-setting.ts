import { RX_CHECK, rxEvent } from '../components/rx-check.ts';
import { MINUTE, type Micros } from '../writing/times.ts';
import type { Story } from './story.ts';

const MATERIAL = '1.74/70';

/** 13. From 14:05 on a changed setting of rx-check refuses one material of lenses. */
export const changedSetting = (day: Micros): Story => {
  const from = day + 845 * MINUTE;
  return {
    number: 13,
    title: 'a changed setting refuses one lens material',
    check: (at, { material }) => (material === MATERIAL && at >= from ? 'blocked' : null),
    lines: [{ at: from, path: RX_CHECK, text: rxEvent(from, 'INFO', 'settings', `setting material ${MATERIAL} changed from allowed to blocked`, { setting: `material.${MATERIAL}`, value: 'blocked' }) }], // prettier-ignore
  };
};
