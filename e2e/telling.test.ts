import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { mkdir, writeFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { By, Key } from 'selenium-webdriver';
import type { Page as Listed, SourceInfo } from '@fadenweg/api';
import { filesBelow } from '../packages/launch/src/client.ts';
import { ROOT } from '../packages/launch/src/places.ts';
import { startSystem, type System } from '../packages/launch/src/testing/system.ts';
import { openBrowser, type Browser } from './support/browser.ts';
import { Page } from './support/page.ts';

/** What was guessed of foreign logs is seen on Sources, and put right there: zones of several at once, a layout of times that nothing reads, copies. */
let system: System;
let browser: Browser;
let page: Page;

const second = (i: number): string => `${String(10 + Math.floor(i / 3600)).padStart(2, '0')}:${String(Math.floor(i / 60) % 60).padStart(2, '0')}:${String(i % 60).padStart(2, '0')}`; // prettier-ignore
const LOGS: Record<string, (i: number) => string> = {
  'gate/gate.log': (i) => `2026-11-24T${second(i)}Z INFO order LX-${204_000 + i} came in`,
  'gate/gate.json': (i) =>
    JSON.stringify({ time: `2026-11-24T${second(i)}Z`, level: 'info', msg: `order LX-${204_000 + i} came in`, lane: `lane-${i % 5}` }),
  'store/store.log': (i) => `2026-11-24 ${second(i)},120 INFO [exec-${i % 3}] kept case ${i}`,
  'crane/crane.log': (i) => `24.11.2026 ${second(i)} | WARN | crane moved box ${i}`,
  'desk/odd.log': (i) => `at ${second(i).slice(3, 5)} past ${second(i).slice(0, 2)} on 24~11~26: desk took box ${i}`,
};

beforeAll(async () => {
  system = await startSystem(join(ROOT, 'packages/web/dist'));
  browser = await openBrowser();
  page = new Page(browser.driver, system.url);
  const root = join(system.folder, 'in');
  for (const [path, line] of Object.entries(LOGS)) {
    await mkdir(dirname(join(root, path)), { recursive: true });
    await writeFile(join(root, path), `${Array.from({ length: 300 }, (_, i) => line(i * 7)).join('\n')}\n`);
  }
  await system.bring(await filesBelow([root]), { zone: 'UTC' });
}, 120_000);
afterAll(async () => {
  await browser?.close();
  await system?.stop();
});

const source = async (path: string): Promise<SourceInfo> =>
  (await system.get<Listed<SourceInfo>>('/sources')).items.find((one) => one.path === path)!;
const read = (path: string): Promise<void> => page.until(`${path} read again`, async () => (await source(path)).state === 'done');
const row = (path: string): string => `//tr[.//button[normalize-space(.)="${path}"]]`;

describe('foreign logs', () => {
  test('show what is not understood, and in which zone the rest is read', async () => {
    await page.open('/sources');
    await page.until('the sources', async () => (await page.text(By.css('main'))).includes('crane/crane.log'));
    expect(await page.text(By.xpath(row('desk/odd.log')))).toContain('300');
    expect(await page.text(By.xpath(row('store/store.log')))).toContain('UTC');
  });

  test('two get another zone in one action', async () => {
    for (const path of ['store/store.log', 'crane/crane.log']) await page.click(By.xpath(`${row(path)}//input[@type="checkbox"]`));
    const form = 'aside[aria-label="How these sources are read"]';
    await page.until('the form for both', async () => (await page.text(By.css(form))).includes('How 2 sources are read'));
    expect(await page.violationsInBoth(browser)).toEqual([]);
    const zone = await browser.driver.findElement(By.css(`${form} input[list]`));
    await zone.sendKeys('Europe/Nowhere', Key.ENTER);
    await page.until('that it is none', async () => (await page.text(By.css(form))).includes('is no IANA time zone'));
    await zone.clear();
    await zone.sendKeys('Europe/Berlin', Key.ENTER);
    await page.until('that it is saved', async () => (await page.text(By.css(form))).includes('2 sources are read again'));
    for (const path of ['store/store.log', 'crane/crane.log']) {
      await read(path);
      expect(await source(path)).toMatchObject({ zone: 'Europe/Berlin', zoneBy: 'set' });
    }
    expect((await source('store/store.log')).from).toBe('2026-11-24T09:00:00.120000Z');
    expect((await source('gate/gate.log')).zoneBy).toBe('stated');
  });

  test('a layout of times is typed, tried on the whole source, and read by', async () => {
    await page.open('/sources');
    await page.click(By.xpath(`${row('desk/odd.log')}//button`));
    const form = 'aside[aria-label="How this source is read"]';
    const times = await page.see(By.css(`${form} .layout input`));
    await times.sendKeys("'at 'mm' past 'HH' on 'dd~MM");
    await page.click(By.xpath('//button[normalize-space(.)="Try it on the whole source"]'));
    await page.until('what would come of it', async () => (await page.text(By.css(form))).includes('300 of 300 records tell a time so'));
    await times.sendKeys('~yy b');
    await page.click(By.xpath('//button[normalize-space(.)="Try it on the whole source"]'));
    await page.until('what is wrong with it', async () => (await page.text(By.css(form))).includes('“b” stands for no part of a time'));
    await times.sendKeys(Key.BACK_SPACE, Key.BACK_SPACE);
    await page.click(By.xpath('//button[normalize-space(.)="Try it on the whole source"]'));
    await page.until('what would come of it', async () => (await page.text(By.css(form))).includes('300 of 300 records tell a time so'));
    expect(await page.violationsInBoth(browser)).toEqual([]);
    await page.click(By.css(`${form} button[type="submit"]`));
    await page.until('that it is saved', async () => (await page.text(By.css(form))).includes('Saved'));
    await read('desk/odd.log');
    expect(await source('desk/odd.log')).toMatchObject({
      understood: 300,
      from: '2026-11-24T10:00:00.000000Z',
      timeLayout: "'at 'mm' past 'HH' on 'dd~MM~yy",
    });
    await page.open('/sources');
    await page.until('that it was typed', async () => (await page.text(By.xpath(row('desk/odd.log')))).includes('times typed'));
  });

  test('what two sources tell is one record, and is told apart where a person says so', async () => {
    await page.open('/find?q=204000&w=all');
    // it beats like a heart
    await page.click(By.xpath('//button[normalize-space(.)="show"]'));
    await page.click(By.xpath('//*[@role="option"][contains(., "told in 2 sources")]'));
    await page.click(By.css('[data-testid="told-in"] summary'));
    const told = await page.text(By.css('[data-testid="told-in"]'));
    expect(told).toContain('gate/gate.log, line 1');
    expect(told).toContain('2026-11-24T10:00:00Z INFO order LX-204000 came in');
    expect(await page.violationsInBoth(browser)).toEqual([]);
    await page.open('/sources');
    await page.until('whose copy it is', async () => (await page.text(By.xpath(row('gate/gate.log')))).includes('copy of gate/gate.json'));
    await page.click(By.xpath(`${row('gate/gate.log')}//button`));
    await page.until('the copies', async () => (await page.text(By.css('section[aria-label="Copies"]'))).includes('All of its 300 records'));
    expect(await page.violationsInBoth(browser)).toEqual([]);
    await page.click(By.xpath('//button[normalize-space(.)="Tell them apart"]'));
    await read('gate/gate.log');
    await page.until('that it is none', async () => (await source('gate/gate.log')).copies === 0);
    await page.open('/find?q=204000&w=all');
    await page.click(By.xpath('//button[normalize-space(.)="show"]'));
    await page.until('both records', async () => (await browser.driver.findElements(By.css('[role="option"]'))).length === 2);
  });
});
