import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { join } from 'node:path';
import { By, Key } from 'selenium-webdriver';
import type { Truth } from '@fadenweg/standin';
import { ROOT } from '../packages/launch/src/places.ts';
import { bringMorning, makeMorning, startSystem, type System } from '../packages/launch/src/testing/system.ts';
import { openBrowser, type Browser } from './support/browser.ts';
import { Page } from './support/page.ts';

let system: System;
let browser: Browser;
let page: Page;
let truth: Truth[];

beforeAll(async () => {
  system = await startSystem(join(ROOT, 'packages/web/dist'));
  browser = await openBrowser();
  page = new Page(browser.driver, system.url);
  const world = await makeMorning(join(system.folder, 'world'));
  truth = world.truth;
  await bringMorning(system, world.logs);
}, 180_000);
afterAll(async () => {
  await browser?.close();
  await system?.stop();
});

test('a runbook with a blank is run to its right answer; one is copied, changed, forgotten and brought back', async () => {
  const call = truth.find((one) => one.flow === 'status-call' && one.outcome === 'failed')!;
  const own = truth.filter((one) => one.attributes.caller === call.attributes.caller);
  const bad = own.filter((one) => ['failed', 'stalled', 'slow', 'odd'].includes(one.outcome));
  await page.open('/runbooks?w=all');
  await page.click(page.button('Which calls of a number failed'));
  await page.until('the blank', async () => (await page.text(By.css('.blanks'))).includes('Fill in: number of the caller'));
  const field = await page.see(By.css('.blanks input'));
  await field.sendKeys(call.attributes.caller!, Key.TAB);
  await page.until('that it can run', async () => /b-number=/.test(await page.address()));
  await page.click(page.button('Run all'));
  await page.until('what was found', async () => (await page.text(By.css('[data-testid=finding]'))).includes(`${bad.length} of them went wrong`));
  expect(await page.text(By.css('[data-testid=finding]'))).toContain(`${call.attributes.caller}: ${own.length} strands`);
  await page.click(page.button('copy and change'));
  await page.click(page.button('Keep'));
  await page.until('the copy', async () => (await page.text(By.css('aside'))).includes('and how? (copy) · local administrator'));
  await page.click(page.button('forget'));
  await page.until('that it is gone', async () => (await page.text(By.css('aside'))).includes('is forgotten'));
  await page.click(page.button('undo'));
  await page.until('the copy again', async () => /\(copy\) · local administrator/.test(await page.text(By.css('aside'))));
});

test('the page has complained of nothing', async () => {
  expect(await browser.complaints()).toEqual([]);
});
