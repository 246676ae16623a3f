import { expect, test } from '@jest/globals';
import { ticketText } from './ticket.ts';

const LINE = {
  time: '2026-11-24 10:42:07.713',
  component: 'labdb',
  level: 'error',
  text: 'canceling statement\n\tdetail  \n',
  source: 'labdb/a.csv',
  line: 8123,
};
const TICKET = {
  title: 'LX-204817',
  sentence: 'Failed in blank-store',
  facts: '',
  lines: [LINE],
  further: 0,
  zone: 'Europe/Berlin',
  link: 'http://x.example/strands/1',
};

test('the sentence, the lines word for word with their place, zone and link', () => {
  expect(ticketText(TICKET)).toBe(
    'LX-204817: Failed in blank-store\n\n2026-11-24 10:42:07.713  labdb  error\n    canceling statement\n    \tdetail\n    (labdb/a.csv, line 8123)\n\nTimes of Europe/Berlin.\nhttp://x.example/strands/1\n',
  );
});
test('what a call or a run tells, its fault and who has it in hand stand behind the sentence', () => {
  expect(ticketText({ ...TICKET, facts: 'Fault: no blank, in hand by store desk' })).toContain(
    'blank-store\n\nFault: no blank, in hand by store desk\n\n2026',
  );
});
test('what is cut is said', () => {
  const long = ticketText({ ...TICKET, title: '', sentence: '', further: 3, lines: [{ ...LINE, level: 'none', text: Array.from({ length: 50 }, (_, i) => i).join('\n') }] }); // prettier-ignore
  expect(long).toMatch(/^2026-11-24 10:42:07\.713 {2}labdb\n {4}0\n/);
  expect(long).toContain('    39\n    … 10 further lines\n    (labdb/a.csv');
  expect(long).toContain('… and 3 further records');
});
