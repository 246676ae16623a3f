import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { mkdir, writeFile } from 'node:fs/promises';
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

test('the weave is taken along as a picture, with its legend and its fonts', async () => {
  const failed = truth.find((one) => one.story === 1 && one.outcome === 'failed')!;
  await page.open(`/strands/order:${failed.businessId}`);
  await page.until('the weave', async () => (await page.text(By.css('.acts'))).includes('take along'));
  await page.driver.executeScript(
    'window.made = []; const create = URL.createObjectURL; URL.createObjectURL = (blob) => { window.made.push(blob); return create.call(URL, blob); }',
  );
  await page.click(By.css('.acts .link'));
  await page.click(page.button('SVG'));
  const made = <T>(script: string): Promise<T> => page.driver.executeAsyncScript(`const done = arguments[arguments.length - 1]; ${script}`);
  await page.until('the file', async () => (await page.driver.executeScript('return window.made.length')) === 1);
  const [root, text, lines] = await made<[string, string, number]>(
    "window.made[0].text().then((text) => { const read = new DOMParser().parseFromString(text, 'image/svg+xml'); done([read.documentElement.nodeName, text, read.querySelectorAll('circle').length]); })",
  );
  expect(root).toBe('svg');
  for (const words of [failed.businessId, 'Failed in', 'carried over', 'where a finding points to', '@font-face', 'font/woff2;base64'])
    expect(text).toContain(words);
  expect(text).not.toMatch(/var\(--/);
  expect(lines).toBeGreaterThan(20);
  await page.click(By.css('.acts .link'));
  await page.click(page.button('PNG'));
  await page.until(
    'the picture',
    async () => (await page.driver.executeScript("return window.made.some((one) => one.type === 'image/png')")) === true,
  );
  const [width, height] = await made<[number, number]>(
    "createImageBitmap(window.made.find((one) => one.type === 'image/png')).then((image) => done([image.width, image.height]))",
  );
  expect(width).toBeGreaterThan(1500);
  expect(height).toBeGreaterThan(1000);
  const target = process.env.FADENWEG_PICTURE;
  if (target) await writeFile(target, Buffer.from(await made<string>("const reader = new FileReader(); reader.onload = () => done(reader.result.split(',')[1]); reader.readAsDataURL(window.made.find((one) => one.type === 'image/png'))"), 'base64')); // prettier-ignore
});

test('codes of a partner are brought in as a file; what is none is refused, what is taken away comes back', async () => {
  const folder = join(system.folder, 'codes');
  await mkdir(folder);
  await writeFile(join(folder, 'broken.json'), '{"items": [');
  await writeFile(
    join(folder, 'codes.json'),
    JSON.stringify({ items: [{ code: 'E-117', title: 'not enough stock', next: 'the stock of the day' }] }),
  );
  await page.open('/sources?tab=codes');
  const file = await page.see(By.css('[data-testid=codes-file]'));
  await file.sendKeys(join(folder, 'broken.json'));
  await page.until('the refusal', async () => /broken\.json is no JSON[\s\S]*Nothing was changed/.test(await page.text(By.css('[role=alert]'))));
  await file.sendKeys(join(folder, 'codes.json'));
  await page.until('the code', async () => /E-117\s+all\s+not enough stock/.test(await page.text(By.css('table'))));
  await page.click(page.button('take away'));
  await page.until('that it is gone', async () => (await page.text(By.css('.part'))).includes('E-117 is forgotten'));
  await page.click(page.button('undo'));
  await page.until('the code again', async () => (await page.text(By.css('table'))).includes('E-117'));
});

test('the page has complained of nothing', async () => {
  expect(await browser.complaints()).toEqual([]);
});
