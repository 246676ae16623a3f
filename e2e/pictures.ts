import { join } from 'node:path';
import { call } from '../packages/launch/src/client.ts';
import { lastStarted } from '../packages/launch/src/last-started.ts';
import { ROOT } from '../packages/launch/src/places.ts';
import type { Page, StrandSummary } from '@fadenweg/api';
import { openBrowser } from './support/browser.ts';
import { Page as Screen } from './support/page.ts';

/** Takes the pictures of docs/screenshots from the demo that was started last: `node --import tsx --conditions=source e2e/pictures.ts [NAME...]`. */
const url = await lastStarted();
if (!url) throw new Error('start the demo first: bin/demo');
const first = async (query: string): Promise<string> => (await call<Page<StrandSummary>>(`${url}/api/strands?limit=1&${query}`)).items[0]!.id;
const failed = await first('flow=lens-order&outcome=failed&sort=started&from=2026-11-24T09:38:00Z&to=2026-11-24T09:44:00Z');
const slow = await first('flow=lens-order&outcome=slow&failedIn=coating-cell&sort=started&from=2026-11-24T14:16:00Z');
const stalled = await first('flow=lens-order&outcome=stalled&failedIn=lens-calc&sort=started');
const call488 = await first('flow=status-call&outcome=failed&sort=started');
const canceled = (await call<Page<{ id: string }>>(`${url}/api/records?limit=1&q=${encodeURIComponent("'canceling statement' where component = labdb")}&to=2026-11-24T09:44:00Z`)).items[0]!.id; // prettier-ignore
const VIEWS: Record<string, { path: string; theme?: 'dark'; has: string }> = {
  rounds: { path: '/rounds', has: 'gravest first' },
  faults: { path: '/faults?w=2026-11-23T23:00:00.000Z~2026-11-24T23:00:00.000Z&e=lens+works', has: 'The line that matters' },
  calls: { path: '/calls?w=2026-11-23T23:00:00.000Z~2026-11-24T23:00:00.000Z&e=lens+works&sort=-setup', has: 'First heard after' },
  data: { path: '/data?w=2026-11-23T23:00:00.000Z~2026-11-24T23:00:00.000Z&e=lens+works&as=price~lens%20works', has: 'Rows written' },
  jobs: { path: '/jobs?w=2026-11-23T23:00:00.000Z~2026-11-24T23:00:00.000Z&e=lens+works', has: 'Its runs in the window' },
  shapes: { path: '/shapes?w=2026-11-24T11:00:00.000Z~2026-11-24T12:00:00.000Z', has: 'First said' },
  strands: { path: '/strands?w=2026-11-24T09:35:00.000Z~2026-11-24T09:44:00.000Z', has: 'canceling statement' },
  'strand-failed': { path: `/strands/${failed}`, has: 'Failed in' },
  'strand-dark': { path: `/strands/${failed}?tab=time`, theme: 'dark', has: 'Where' },
  'strand-slow': { path: `/strands/${slow}?tab=time`, has: 'Where' },
  'strand-stalled': { path: `/strands/${stalled}`, has: 'what no good one has' },
  compare: { path: `/strands/${slow}?tab=compare`, has: 'what departs' },
  changes: { path: '/changes', has: 'State then' },
  call: { path: `/strands/${encodeURIComponent(call488)}?view=messages&tab=call`, has: 'A change of it was refused' },
  find: {
    path: '/find?q=where+level+%3E%3D+warning+and+not+component+%3D+kernel&w=2026-11-24T07:00:00.000Z~2026-11-24T11:00:00.000Z',
    has: 'leave out',
  },
  reading: {
    path: '/find?w=2026-11-24T09:37:30.000Z~2026-11-24T09:40:00.000Z&order=oldest&tab=sources&off=6,16&mark=LX-106016&view=since',
    has: 'alone',
  },
  record: {
    path: `/find?q=%27canceling+statement%27&w=2026-11-24T07:00:00.000Z~2026-11-24T11:00:00.000Z&record=${canceled}`,
    has: 'Before and after',
  },
  sources: { path: '/sources', has: 'postgresql-csvlog' },
  live: { path: '/find?live=1&e=production', has: 'order accepted' },
};
const asked = process.argv.slice(2);
const browser = await openBrowser();
const screen = new Screen(browser.driver, url);
// the walk is offered once: the pictures are of those who know their way
await browser.driver.get(url);
await browser.driver.executeScript("localStorage.setItem('fadenweg.walk', '-1')");
for (const [name, { path, theme, has }] of Object.entries(VIEWS)) {
  if (asked.length > 0 && !asked.includes(name)) continue;
  await browser.theme(theme ?? 'light');
  await browser.driver.get(url + path);
  await screen.until(`${has}, and all of it found`, async () => {
    const source = await browser.driver.getPageSource();
    return source.includes(has) && !/searching|so far/i.test(source);
  });
  await browser.picture(join(ROOT, 'docs/screenshots', `${name}.png`));
  console.log(name);
}
await browser.close();
