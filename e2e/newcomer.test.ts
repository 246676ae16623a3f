import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { mkdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { By } from 'selenium-webdriver';
import type { IdentifierKind, Page as Listed, SourceInfo, StrandSummary } from '@fadenweg/api';
import { filesBelow } from '../packages/launch/src/client.ts';
import { ROOT } from '../packages/launch/src/places.ts';
import { startSystem, type System } from '../packages/launch/src/testing/system.ts';
import { openBrowser, type Browser } from './support/browser.ts';
import { Page } from './support/page.ts';

/** Somebody with logs of their own, of which nothing is declared: from dropping them to what failed, what was slow and what never came. */
let system: System;
let browser: Browser;
let page: Page;

const BOOKINGS = 240;
const FAILED = new Set([31, 77, 140]);
const SLOW = new Set([50, 51]);
const LOST = new Set([90]);
const number = (i: number): string => `BK-${50_000 + i * 7}`;
const START = Date.UTC(2026, 10, 20, 7);
/** Every time in UTC, but in whose zone and how exactly it is written differs from log to log. */
async function logs(root: string): Promise<void> {
  const lines: Record<string, [number, string][]> = { gate: [], desk: [], locks: [], mail: [] };
  const iso = (ms: number): string => new Date(ms).toISOString();
  const plain = (ms: number): string => iso(ms + 3 * 3_600_000).slice(0, 23).replace('T', ' ').replace('.', ','); // prettier-ignore
  for (let i = 0; i < BOOKINGS; i++) {
    const begin = START + i * 20_000 + ((i * 7919) % 900);
    const request = `rq-${((i + 1) * 0x9e3779b97f4a7).toString(16).padStart(16, '0').slice(-10)}`;
    const reserved = begin + 6 + (SLOW.has(i) ? 5000 + i : 20 + ((i * 13) % 9));
    const end = reserved + 3;
    lines.desk!.push([begin, `${plain(begin)} INFO  [main] desk.Start - booking ${number(i)} asked for, req=${request}`]);
    lines.locks!.push([begin + 6, `ts=${iso(begin + 6)} level=info msg="cut a key" booking=${number(i)}`]);
    if (FAILED.has(i)) {
      lines.locks!.push([reserved, `ts=${iso(reserved)} level=warn msg="the lathe answered 503, giving up" booking=${number(i)}`]);
      lines.desk!.push([end, `${plain(end)} ERROR [main] desk.Start - no key for ${number(i)}`]);
    } else {
      lines.locks!.push([reserved, `ts=${iso(reserved)} level=info msg="key cut" booking=${number(i)}`]);
      lines.desk!.push([end, `${plain(end)} INFO  [main] desk.Start - booking ${number(i)} kept`]);
      const sent = end + 900 + ((i * 31) % 700);
      if (!LOST.has(i)) lines.mail!.push([sent, JSON.stringify({ time: iso(sent), level: 'info', msg: 'confirmation sent', booking: number(i) })]);
    }
    const [, d, m, y, t] = /^\w+, (\d+) (\w+) (\d+) (\S+)/.exec(new Date(end + 1).toUTCString())!;
    lines.gate!.push([
      end,
      `192.0.2.7 - - [${d}/${m}/${y}:${t} +0000] "POST /bookings HTTP/1.1" ${FAILED.has(i) ? 500 : 201} 512 "-" "app" rt=${((end + 1 - begin) / 1000).toFixed(3)} rid=${request}`,
    ]);
  }
  for (const [component, list] of Object.entries(lines)) {
    await mkdir(join(root, component), { recursive: true });
    await writeFile(join(root, component, `${component}.log`), `${list.sort(([a], [b]) => a - b).map(([, line]) => line).join('\n')}\n`); // prettier-ignore
  }
}

beforeAll(async () => {
  system = await startSystem(join(ROOT, 'packages/web/dist'));
  browser = await openBrowser();
  page = new Page(browser.driver, system.url);
  const root = join(system.folder, 'in');
  await logs(root);
  await system.bring(await filesBelow([root]));
}, 120_000);
afterAll(async () => {
  await browser?.close();
  await system?.stop();
});

const strands = async (outcome: string): Promise<StrandSummary[]> =>
  (await system.get<Listed<StrandSummary>>(`/strands?limit=500&sort=started&outcome=${outcome}`)).items;

describe('logs of which nothing is declared', () => {
  test('say what to do next, on Strands and on Sources', async () => {
    await page.open('/strands');
    await page.until('what to do', async () => (await page.text(By.css('.empty'))).includes('None of the 1,436'));
    for (const theme of ['light', 'dark'] as const) {
      await browser.theme(theme);
      expect(await page.violations(theme === 'dark' ? 'colours' : 'all')).toEqual([]);
    }
    await browser.theme('light');
    await page.open('/sources');
    // what came in leads on: to the best name of a transaction
    await page.until('what came in', async () => /1,436 records of 4 sources[\s\S]*The best set, [^.]*booking/.test(await page.text(By.css('.led'))));
    await page.click(By.linkText('See what looks like one'));
    await page.until('the suggestion', async () => (await page.text(By.css('.kinds'))).includes('BK-\\d{5,7}'));
    // what the whole set brings stands above
    await page.until('the set', async () =>
      /they name \d+ transactions over \d components, \d+ % of the records/.test(await page.text(By.css('.best'))),
    );
    expect(await page.violations()).toEqual([]);
  });

  test('one click makes strands that are compared with what is usual: what failed, was slow and never came is told', async () => {
    await page.click(By.css('.best button'));
    await page.until('that it is declared', async () => (await page.text(By.css('.said'))).includes('What is usual is learned'));
    await page.until('all of them judged', async () => (await strands('done')).length === BOOKINGS - FAILED.size - SLOW.size - LOST.size);
    // the gate names no booking: what ties it is discovered once bookings are declared
    await page.until('the gate among them', async () => (await strands('failed')).every((one) => one.records === 5));
    const failed = await strands('failed');
    expect(failed.map((one) => one.businessId)).toEqual([...FAILED].map(number));
    // the gate tells whole seconds, and yet is not taken for the cause
    for (const one of failed) expect(one.headline).toContain('locks said “the lathe answered 503, giving up”');
    expect((await strands('slow')).map((one) => one.businessId)).toEqual([...SLOW].map(number));
    expect((await strands('slow'))[0]!.failedIn).toBe('locks');
    expect((await strands('stalled')).map((one) => one.businessId)).toEqual([...LOST].map(number));
    const kinds = (await system.get<Listed<IdentifierKind>>('/identifier-kinds')).items;
    expect(kinds.filter((one) => one.discovered).map((one) => one.role)).toEqual(['link']);
    // the desk writes in a zone three hours ahead and does not say so
    const sources = (await system.get<Listed<SourceInfo>>('/sources')).items;
    expect(sources.find((one) => one.component === 'desk')).toMatchObject({ zone: 'Etc/GMT-3', zoneBy: 'guessed' });
  }, 60_000);

  test('what came in leads to the first that failed, with the sentence on top', async () => {
    await page.open('/sources');
    await page.until('the first', async () => (await page.text(By.css('.led'))).includes(number(31)));
    expect(await page.violations()).toEqual([]);
    await page.click(By.css('.led .strand'));
    await page.until('the strand', async () => (await page.text(By.css('main'))).includes('the lathe answered 503, giving up'));
  });

  test('the list has the columns of one’s task, which stay one’s own and stand in the address', async () => {
    await page.open('/strands?outcome=failed');
    await page.click(page.button('columns'));
    await page.click(page.button('Operator'));
    await page.until('its columns', async () => /Weight[\s\S]*Gave up in/.test(await page.text(By.css('.table .head'))));
    expect(await browser.driver.getCurrentUrl()).toContain('cols=outcome:98,weight:70');
    expect(await page.violations()).toEqual([]);
    await page.open('/strands?outcome=slow');
    await page.until('them again', async () => (await page.text(By.css('.table .head'))).includes('Gave up in'));
    await page.click(page.button('columns'));
    await page.click(page.button('Usual'));
    await page.until('the usual', async () => !(await page.text(By.css('.table .head'))).includes('Gave up in'));
  });

  test('the list shows them with their flow, and the sentence leads to the record', async () => {
    await page.open('/strands?outcome=failed');
    await page.until('the three', async () => (await page.text(By.css('main'))).includes(number(140)));
    expect(await page.text(By.css('.filters'))).toContain('booking');
    await page.find(number(77));
    await page.until('the strand', async () => (await page.text(By.css('.facts'))).includes('5 records from 3 components'));
    expect(await page.text(By.css('main'))).toMatch(/What gate\s+reported after it is a consequence/);
    expect(await page.violations()).toEqual([]);
  });

  test('calls, which are known without being declared, may be compared too', async () => {
    await page.open('/sources?tab=identifiers');
    await page.click(By.xpath('//table[caption]//tr[td[normalize-space(.)="call"]]//button[normalize-space(.)="Compare them"]'));
    await page.until('that they are', async () => (await page.text(By.css('.said'))).includes('Strands of “call” are compared'));
    await page.until('nothing left to compare', async () => !(await page.text(By.css('.kinds'))).includes('Compare them'));
    expect((await system.get<Listed<{ name: string; kind: string }>>('/flows')).items).toContainEqual(
      expect.objectContaining({ name: 'call', kind: 'call' }),
    );
    expect(await page.violations()).toEqual([]);
  });

  test('taken away, its flow goes with it', async () => {
    await page.open('/sources?tab=identifiers');
    await page.click(By.xpath('//table[caption]//tr[td[normalize-space(.)="booking"]]//button[normalize-space(.)="Take away"]'));
    await page.until('it to be gone', async () => (await page.text(By.css('.said'))).includes('is no identifier any more'));
    await page.until('no flow of it', async () =>
      (await system.get<Listed<{ name: string }>>('/flows')).items.every((one) => one.name !== 'booking'),
    );
  });

  test('work in the background is told with its state, what ended with what it was for', async () => {
    await page.open('/sources');
    await page.click(page.button('Work'));
    await page.until('what goes on', async () => /Clearing up[\s\S]*by the clock/.test(await page.text(By.css('main'))));
    await page.click(page.button('Ended'));
    await page.until('what ended', async () => /Ending an import[\s\S]*import \d/.test(await page.text(By.css('table'))));
    expect(await page.text(By.css('table'))).toContain('Working out strands');
    await browser.driver.navigate().refresh();
    expect(await page.violations()).toEqual([]);
    await page.until('the same after a reload', async () => (await page.text(By.css('table'))).includes('Ending an import'));
  });
});
