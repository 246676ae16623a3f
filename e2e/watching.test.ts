import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { appendFile, mkdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { By } from 'selenium-webdriver';
import { ROOT } from '../packages/launch/src/places.ts';
import { startSystem, type System } from '../packages/launch/src/testing/system.ts';
import { openBrowser, type Browser } from './support/browser.ts';
import { Page } from './support/page.ts';

let system: System;
let browser: Browser;
let page: Page;
let file: string;

beforeAll(async () => {
  system = await startSystem(join(ROOT, 'packages/web/dist'));
  browser = await openBrowser();
  page = new Page(browser.driver, system.url);
  await mkdir(join(system.folder, 'depot'));
  file = join(system.folder, 'depot', 'desk.log');
  await writeFile(file, line('opened'));
}, 180_000);
afterAll(async () => {
  await browser?.close();
  await system?.stop();
});

const line = (text: string, level = 'INFO'): string => `${new Date().toISOString()} ${level} [main] depot.Desk - ${text}\n`;
const lines = async (): Promise<string> => page.text(By.css('[data-lines]'));
const seen = (words: string, holds: (text: string) => boolean): Promise<void> => page.until(words, async () => holds(await lines()));

describe('what comes in', () => {
  test('a folder is followed from Sources, and watched from there', async () => {
    await page.open('/sources?tab=followed');
    await page.until('that nothing is followed', async () => (await page.text(By.css('main'))).includes('Nothing is followed.'));
    await page.fill(By.css('.path'), 'depot');
    await page.click(By.css('.part form button[type=submit]'));
    await page.until('the refusal', async () => (await page.text(By.css('[role=alert]'))).includes('does not begin at the root'));
    await page.fill(By.css('.path'), join(system.folder, 'depot'));
    await page.click(By.css('.part form button[type=submit]'));
    await page.until('the folder', async () => (await page.text(By.css('table'))).includes(join(system.folder, 'depot')));
    await page.click(page.button('watch live'));
    await page.until('that it watches', async () => (await page.text(By.css('.state'))) === 'live');
  });

  test('lines appear as they are written; paused they wait, and none is lost', async () => {
    await appendFile(file, line('parcel 1 taken'));
    await seen('the first', (text) => text.includes('parcel 1 taken'));
    await page.press('p');
    await page.until('paused', async () => (await page.text(By.css('.state'))) === 'paused');
    await appendFile(file, line('parcel 2 taken') + line('parcel 3 taken'));
    await page.until('two that wait', async () => (await page.text(By.css('.bar'))).includes('2 wait'));
    expect(await lines()).not.toContain('parcel 2');
    await page.press('p');
    await seen('those that waited', (text) => text.includes('parcel 2 taken') && text.includes('parcel 3 taken'));
  });

  test('a mark is set, and times count from it', async () => {
    await page.press('m');
    await seen('the mark', (text) => text.includes('marked here'));
    await appendFile(file, line('parcel 4 taken'));
    await seen('a time since the mark', (text) => /\+\d\.\d{3} s[\s\S]*parcel 4 taken/.test(text));
    expect(await lines()).toMatch(/−\d+\.\d{3} s[\s\S]*parcel 1 taken/);
  });

  test('only what the search finds comes; its server may stop and come back', async () => {
    await page.find('where level = error');
    await page.until(
      'an empty list',
      async () => (await page.text(By.css('.state'))) === 'live' && (await page.text(By.css('main'))).includes('0 found of 0'),
    );
    await appendFile(file, line('parcel 5 taken') + line('parcel 6 is torn', 'ERROR'));
    await seen('the error', (text) => text.includes('parcel 6 is torn'));
    expect(await lines()).not.toContain('parcel 5');
    const port = Number(new URL(system.url).port);
    await system.restart(async () => appendFile(file, line('parcel 7 is torn', 'ERROR')), port);
    await seen('what came in meanwhile', (text) => text.includes('parcel 7 is torn'));
    expect((await lines()).match(/parcel 6/g)).toHaveLength(1);
  });

  test('breaks no rule of accessibility, in both themes', async () => {
    expect(await page.violations()).toEqual([]);
    await page.press('t');
    expect(await page.violations('colours')).toEqual([]);
    await page.press('t');
  });
});

test('strands come into the list, grow and are judged otherwise before one’s eyes; while it is read further down it stays', async () => {
  const kind = { name: 'parcel', label: 'parcel', role: 'business', patterns: ['\\bPX-\\d{6}\\b'], fields: [], normal: { case: 'keep', separators: 'keep', leadingZeros: 'keep', phone: false }, scope: 'global', leaseMs: null }; // prettier-ignore
  await fetch(`${system.url}/api/identifier-kinds`, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(kind) });
  await appendFile(file, line('PX-000001 taken'));
  await page.open('/strands?w=all&live=1');
  const rows = (): Promise<string> => page.text(By.css('[role=rowgroup]'));
  await page.until('the first strand', async () => (await rows()).includes('PX-000001'));
  await appendFile(file, line('PX-000002 taken'));
  await page.until('one that has come', async () => (await rows()).includes('PX-000002'));
  await appendFile(file, line('PX-000002 cannot be weighed', 'ERROR'));
  await page.until('that it failed', async () => /failed[\s\S]*PX-000002/.test(await rows()));
  await appendFile(file, Array.from({ length: 60 }, (_, i) => line(`PX-0001${String(i).padStart(2, '0')} taken`)).join(''));
  await page.until('many', async () => /PX-0001\d\d/.test(await rows()));
  await page.driver.executeScript("document.querySelector('[role=rowgroup]').scrollTop = 600");
  await appendFile(file, line('PX-000900 taken'));
  await page.until('that more has come', async () => (await page.text(By.css('.waiting'))).includes('have come or changed'));
  await page.click(page.button('show them'));
  await page.until('the newest on top', async () => (await rows()).includes('PX-000900'));
}, 90_000);

test('a stack trace is unrolled by keyboard: the origin first, calls of others on demand', async () => {
  const trace = `java.lang.IllegalStateException: parcel 8 has no label
\tat org.springframework.web.method.Invoker.invoke(Invoker.java:118)
\tat depot.desk.Labels.print(Labels.java:41)
\tat org.springframework.aop.Proxy.proceed(Proxy.java:186)
Caused by: java.io.IOException: printer is on fire
\tat depot.print.Printer.send(Printer.java:77)
\t... 3 more`;
  await page.open('/find?w=all&live=1');
  await page.until('that it watches', async () => (await page.text(By.css('.state'))) === 'live');
  await appendFile(file, `${line('label failed', 'ERROR').trimEnd()}\n${trace}\n${line('next')}`);
  await seen('the error', (text) => text.includes('label failed'));
  await page.press('j', 'o');
  const shown = (): Promise<string> => page.text(By.css('[data-testid=trace]'));
  await page.until('the trace', async () => /Java, 4 calls[\s\S]*caused by[\s\S]*IOException[\s\S]*origin\s*Printer\.send/.test(await shown()));
  expect(await shown()).not.toContain('Proxy.proceed');
  await page.driver.executeScript("document.querySelector('[data-testid=trace] [role=listbox]').focus()");
  await page.press('a');
  await page.until('all calls', async () => (await shown()).includes('Proxy.proceed'));
});

test('the page has complained of nothing but the server that was away', async () => {
  expect((await browser.complaints()).filter((one) => !/api\/live|ERR_CONNECTION|Failed to fetch|api\/follows.* 400/i.test(one))).toEqual([]);
});
