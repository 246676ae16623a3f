import { describe, expect, test } from '@jest/globals';
import { holdsSeveral, standsAlone } from './file-names.ts';

describe('names of files', () => {
  test.each(['relay.log', 'order-desk.2026-11-24.log', 'labdb.csv', 'Gate_7.txt'])('%s stands for itself in a folder of another name', (file) => {
    expect(standsAlone(file, 'night shift')).toBe(true);
  });
  test.each(['access.log', 'error_ssl.log', 'app-1.log', 'server.log.2', '0.log', 'a.log', 'shift-lead.log', '.log'])('%s does not', (file) => {
    expect(standsAlone(file, 'night shift')).toBe(false);
  });
});

describe('a folder', () => {
  test('of logs of several programs tells nothing of them', () => {
    expect(holdsSeveral('night shift', ['relay.log', 'desk.log', 'labdb.csv'])).toBe(true);
    expect(holdsSeveral('night shift', ['relay.log', 'desk.log', 'error.log'])).toBe(true);
  });
  test('of one program is its name', () => {
    expect(holdsSeveral('switch', ['sip.log'])).toBe(false);
    expect(holdsSeveral('switch', ['sip.log', 'sip.log.1', 'sip-2026-11-24.log'])).toBe(false);
    expect(holdsSeveral('edge', ['access.log', 'error.log', 'proxy.log'])).toBe(false);
    expect(holdsSeveral('order-desk', ['order-desk.log', 'desk-worker.log', 'gc.log'])).toBe(false);
    expect(holdsSeveral('x', [])).toBe(false);
  });
});
