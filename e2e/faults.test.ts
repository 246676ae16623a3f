import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { join } from 'node:path';
import { By, Key } from 'selenium-webdriver';
import { FULL_DAY, generate } from '@fadenweg/standin';
import { ROOT } from '../packages/launch/src/places.ts';
import { bringMorning, startSystem, type System } from '../packages/launch/src/testing/system.ts';
import { openBrowser, type Browser } from './support/browser.ts';
import { Page } from './support/page.ts';

const HOUR = 3_600_000_000;
let system: System;
let browser: Browser;
let page: Page;

beforeAll(async () => {
  system = await startSystem(join(ROOT, 'packages/web/dist'));
  browser = await openBrowser();
  page = new Page(browser.driver, system.url);
  const out = join(system.folder, 'world');
  await generate({ out, seed: 5, faultRate: 0.02, storyDay: FULL_DAY, stretches: [{ from: FULL_DAY + 6 * HOUR, hours: 8, records: 24_000 }] });
  await bringMorning(system, join(out, 'logs'));
}, 300_000);
afterAll(async () => {
  await browser?.close();
  await system?.stop();
});

const sheet = (): Promise<string> => page.text(By.css('.fault'));
const line = (words: string): By => By.xpath(`//*[@role="option"][contains(., "${words}")]`);
const state = (words: string): By => By.xpath(`//*[@role="radiogroup"]//label[contains(., "${words}")]/input`);
const faults = async (more = ''): Promise<void> => {
  await page.open(`/faults?w=all${more}`);
  await page.until('the list', async () => (await page.text(By.css('.lines'))).includes('PrismOffGridException'));
};

test('faults are a short list, by key too, and each says why its records stand together', async () => {
  await page.open('/rounds');
  await page.press('g', 'u');
  await page.until('Faults', async () => (await page.address()).startsWith('/faults'));
  await faults();
  expect(await page.text(By.css('[data-testid=sum]'))).toMatch(/^\d+ failed strands, each of one fault/);
  await page.click(line('PrismOffGridException'));
  await page.until('what it is', async () => /PrismOffGridException in Rings\.shift/.test(await sheet()));
  expect(await sheet()).toMatch(/line numbers, values and generated names do not count/);
  expect(await page.violationsInBoth(browser)).toEqual([]);
  await page.press('k');
  await page.until('the one before', async () => !/^PrismOffGridException/.test(await sheet()));
});

test('from a fault to its strands, to one of them, and from its finding back', async () => {
  await faults();
  await page.click(line('PrismOffGridException'));
  await page.until('its strands', async () => /its \d+ strands/.test(await sheet()));
  await page.click(By.xpath('//article//a[starts-with(normalize-space(.), "its ")]'));
  await page.until('just those', async () => /^\/strands.*fault=\d+/.test(await page.address()));
  await page.click(By.css('[aria-rowindex="1"] a'));
  await page.until('the cause', async () => (await page.text(By.css('[data-testid=sentence]'))).includes('PrismOffGridException'));
  await page.click(By.xpath('//p[contains(., "Its fault")]/a'));
  await page.until('the fault again', async () => /PrismOffGridException in Rings\.shift/.test(await sheet()));
});

test('in hand, mended in the version that runs: returned; taken back step by step', async () => {
  await faults();
  await page.click(line('PrismOffGridException'));
  await page.until('the fault', async () => /PrismOffGridException in/.test(await sheet()));
  await page.click(By.xpath('//label[contains(., "By whom")]/input'));
  await page.press('optics');
  await page.click(page.button('Say so'));
  await page.until('who has it', async () => /in hand.*optics/s.test(await page.text(line('PrismOffGridException'))));
  await page.click(state('mended'));
  await page.click(By.xpath('//label[contains(., "In version")]/input'));
  await page.press('4.12.0', Key.TAB);
  await page.click(page.button('Say so'));
  await page.until('that it is back', async () => (await page.text(line('PrismOffGridException'))).includes('returned'));
  await page.until('in which', async () => /mended in 4\.12\.0/.test(await sheet()));
  await page.click(page.button('take back the last'));
  await page.until('in hand again', async () => (await page.text(line('PrismOffGridException'))).includes('in hand'));
  await page.click(page.button('take back the last'));
  await page.until('new again', async () => (await page.text(line('PrismOffGridException'))).includes('new'));
});

test('what is tolerated is quiet, with a count and a way to it; nothing at all is said', async () => {
  await faults();
  await page.click(line('PrismOffGridException'));
  await page.until('the fault', async () => /PrismOffGridException in/.test(await sheet()));
  await page.click(state('tolerated'));
  await page.click(By.xpath('//label[contains(., "Because")]/input'));
  await page.press('a new grid comes in spring');
  await page.click(page.button('Say so'));
  await page.until('it is left out', async () => /1 tolerated/.test(await page.text(By.css('[data-testid=sum]'))));
  await page.click(page.button('show'));
  await page.until('it is there again', async () => (await page.text(line('PrismOffGridException'))).includes('tolerated'));
  await page.open('/strands?w=all&outcome=failed');
  const quiet = page.button('of mended or tolerated faults out of sight');
  await page.until('its strands are out of sight', async () => (await page.text(quiet)).length > 0);
  expect(await page.text(By.css('[role=table]'))).not.toContain('PrismOffGrid');
  await page.click(quiet);
  await page.until('they are there', async () => (await page.text(By.css('[role=table]'))).includes('surface of'));
  await page.open('/faults?w=2026-10-01T00:00:00.000Z~2026-10-01T06:00:00.000Z');
  await page.until('that nothing came up', async () => (await page.text(By.css('main'))).includes('No strand failed and no error was told'));
  expect(await page.violations()).toEqual([]);
});

test('two are put together, and taken apart again; words that part nothing are told', async () => {
  await faults('&all=1');
  await page.click(line('PrismOffGridException'));
  await page.until('the fault', async () => /PrismOffGridException in/.test(await sheet()));
  const before = await page.text(line('PrismOffGridException'));
  await page.click(By.xpath('//label[contains(., "Another that is the same")]/select/option[2]'));
  await page.click(page.button('Put together'));
  await page.until('that they are one', async () => (await page.text(line('PrismOffGridException'))).includes('and 1 more'));
  await page.until('with what', async () => /with it/.test(await sheet()));
  await page.click(By.xpath('//button[normalize-space(.)="take back"]'));
  await page.until('as before', async () => (await page.text(line('PrismOffGridException'))) === before);
  await page.click(By.xpath('//label[contains(., "What holds these words")]/input'));
  await page.press('no such words', Key.ENTER);
  await page.until('what they would part', async () => /0 of its \d+ records hold them: they part nothing/.test(await sheet()));
  expect(await page.violations()).toEqual([]);
});

test('a message that a new version brought stands among the shapes, by key, with the way to its records', async () => {
  await page.open('/shapes?w=2026-11-24T11:00:00.000Z~2026-11-24T12:00:00.000Z');
  const fresh = By.xpath('//*[@role="option"][contains(., "surface of") and contains(., "failed")]');
  await page.until('what is new', async () => (await page.text(fresh)).includes('lens-calc'));
  expect(await page.text(By.css('[data-testid=compared]'))).toMatch(/shapes in [\d,]+ records · compared with \d stretches as long before it/);
  await page.click(fresh);
  await page.until('when it was said', async () => /First said 2026-11-24 12:2/.test(await page.text(By.css('.shape'))));
  expect(await page.violationsInBoth(browser)).toEqual([]);
  await page.click(By.linkText('its records'));
  await page.until('its records', async () => /PrismOffGridException|surface of LX/.test(await page.text(By.css('main'))));
  expect(await page.address()).toMatch(/^\/find\?.*where.shape/);
  await page.press('g', 'd');
  await page.until('Shapes', async () => (await page.address()).startsWith('/shapes'));
});

test('a parameter gets a name, is a field, and loses the name; what is tolerated is left out', async () => {
  await page.open('/shapes?w=2026-11-24T11:00:00.000Z~2026-11-24T12:00:00.000Z');
  const fresh = By.xpath('//*[@role="option"][contains(., "surface of") and contains(., "failed")]');
  const shape = (): Promise<string> => page.text(By.css('.shape'));
  await page.click(fresh);
  await page.until('what varies in it', async () => /What varies in it/.test(await shape()));
  await page.click(By.css('.shape input'));
  await page.press('lens', Key.ENTER);
  await page.until('the way to its records', async () => /records by lens/.test(await shape()));
  await page.click(By.linkText('records by lens'));
  await page.until('only records that have it', async () => /surface of LX/.test(await page.text(By.css('main'))));
  expect(await page.address()).toMatch(/lens/);
  await browser.driver.navigate().back();
  await page.until('the shape again', async () => /records by lens/.test(await shape()));
  await page.fill(By.css('.shape input'), '');
  await page.click(page.button('No name'));
  await page.until('no name', async () => !/records by lens/.test(await shape()));
  await page.click(By.xpath('//label[contains(., "Tolerated as new")]/input'));
  await page.press('tried out until spring', Key.ENTER);
  await page.until('it is left out', async () => (await page.text(By.css('main'))).includes('tolerated: 1'));
  await page.click(page.button('tolerated: 1'));
  await page.click(fresh);
  await page.until('why', async () => /tried out until spring/.test(await shape()));
  await page.click(page.button('take back'));
  await page.until('it is as before', async () => /Tolerated as new, because/.test(await shape()));
  await page.click(By.css('main select option:last-child'));
  await page.until('it has to be said which', async () => (await page.text(By.css('main'))).includes('Say what it is to be compared with'));
  expect(await page.violationsInBoth(browser)).toEqual([]);
});

test('what weighs is searched for; a weight of one’s own is tried, kept and taken away', async () => {
  await page.open('/find?w=all&tab=weights');
  const panel = By.xpath('//aside//*[contains(., "A weight of your own")]');
  await page.until('the weights', async () => (await page.text(panel)).includes('What you say here comes before that'));
  await page.click(page.button('serious'));
  await page.until('what is serious', async () => (await page.text(By.css('main'))).includes('weight >= serious'));
  await page.click(By.xpath('//label[starts-with(normalize-space(.), "Name")]/input'));
  await page.press('Statistics', Key.TAB, 'where message like', " '%statistics%'");
  const save = By.xpath('//aside//button[@type="submit"]');
  expect(await (await page.see(save)).isEnabled()).toBe(false);
  await page.click(page.button('Try it'));
  await page.until('how many', async () => /finds [\d,]+ of [\d,]+ records/.test(await page.text(panel)));
  expect(await page.violationsInBoth(browser)).toEqual([]);
  await page.click(save);
  await page.until('it is kept', async () => /Statistics is notable/.test(await page.text(panel)));
  await page.click(page.button('take away'));
  await page.until('it is gone', async () => /is taken away/.test(await page.text(panel)));
});

test('jobs stand in a list, by key too, and their runs beside each other; a run leads to its strand', async () => {
  await page.open('/rounds');
  await page.press('g', 'n');
  await page.until('Jobs', async () => (await page.address()).startsWith('/jobs'));
  await page.open('/jobs?w=all');
  const own = By.xpath('//*[@role="option"][contains(., "stock-sync job")]');
  await page.until('its schedule', async () => (await page.text(own)).includes('every 30 minutes, at :06'));
  await page.click(own);
  const job = (): Promise<string> => page.text(By.css('.job'));
  await page.until('its runs', async () => /Its runs in the window/.test(await job()));
  expect(await job()).toMatch(/stock-sync job\nBegins every 30 minutes/);
  expect(await page.violationsInBoth(browser)).toEqual([]);
  await page.click(page.button('runs beside each other'));
  await page.until('threads', async () => (await browser.driver.findElements(By.css('.run'))).length > 10);
  expect(await page.violationsInBoth(browser)).toEqual([]);
  await page.click(page.button('gravest'));
  await page.press('o');
  await page.until('the last run', async () => /^\/strands\/run/.test(await page.address()));
});

test('where nothing was collected before it is said that nothing can be compared', async () => {
  await page.open('/shapes?w=2026-11-24T05:00:00.000Z~2026-11-24T05:30:00.000Z&baseline=days');
  await page.until('that there is nothing before', async () =>
    (await page.text(By.css('main'))).includes('Nothing was collected before this window'),
  );
  await page.open('/shapes?w=2026-11-24T05:00:00.000Z~2026-11-24T05:05:00.000Z');
  await page.until('why not', async () => (await page.text(By.css('main'))).includes('The window is too short'));
});
