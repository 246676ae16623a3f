import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { mkdir, writeFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { By, Key } from 'selenium-webdriver';
import { lensCalcText, type Truth } from '@fadenweg/standin';
import { filesBelow } from '../packages/launch/src/client.ts';
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

test('calls of a trace and a message lead to their lines in the source text that was registered', async () => {
  const files = lensCalcText('4.12.0');
  const lineOf = (path: string, words: string): number => files.find((one) => one.path === path)!.body.split('\n').findIndex((text) => text.includes(words)) + 1; // prettier-ignore
  const root = join(system.folder, 'texts');
  for (const { path, body } of files) {
    await mkdir(dirname(join(root, path)), { recursive: true });
    await writeFile(join(root, path), body);
  }
  const at = Date.parse('2026-11-25T09:00:00Z');
  const logs = join(system.folder, 'calc-logs');
  await mkdir(join(logs, 'lens-calc'), { recursive: true });
  await writeFile(
    join(logs, 'lens-calc/calc.log'),
    [
      `${at} INFO  [main] calc.Surface - lens-calc 4.12.0 started, 6 workers`,
      ...Array.from({ length: 30 }, (_, i) => `${at + 1000 + i} DEBUG [calc-1] calc.Surface - grid refined, residual 0.00${i}`),
      `${at + 2000} ERROR [calc-1] calc.Surface - surface of LX-999001 failed`,
      'calc.PrismOffGridException: prism 2.00 leaves the grid at ring 37',
      `\tat calc.grid.Rings.shift(Rings.java:${lineOf('calc/grid/Rings.java', 'throw new')})`,
      `\tat calc.Surface.refine(Surface.java:${lineOf('calc/Surface.java', 'rings.shift(')})`,
      '\tat shop.kit.Retry.run(Retry.java:8)',
      '',
    ].join('\n'),
  );
  await system.bring(await filesBelow([logs]));
  await page.open('/sources?tab=texts');
  await page.fill(By.css('.new .input'), 'lens-calc', '4.12.0');
  await (await page.see(By.css('[data-testid=text-folder]'))).sendKeys(root);
  await page.click(page.button('Register'));
  await page.until('that it is registered', async () => /lens-calc\s+4\.12\.0\s+4\s/.test(await page.text(By.css('table'))));
  await page.open("/find?q='surface of LX-999001 failed'&w=all");
  await page.click(By.css('[data-lines] [role=option]'));
  const here = (): Promise<string> => page.text(By.css('[data-testid=excerpt] .here'));
  await page.until('the line of the origin', async () => (await here()).includes('throw new PrismOffGridException(prism, ring);'));
  await (await page.see(By.css('[data-testid=trace] [role=listbox]'))).sendKeys(Key.ARROW_DOWN, Key.ARROW_DOWN);
  await page.until('the line of its caller', async () => (await here()).includes('rings = rings.shift(lens.prism(), lens.base());'));
  expect(await page.text(By.css('.writer'))).toContain(`Written by calc/Surface.java, line ${lineOf('calc/Surface.java', ' failed", thrown')}`);
  // packages of one's own are told and taken back where a trace folds them
  const trace = By.css('[data-testid=trace] [role=listbox]');
  const calls = (): Promise<string> => page.text(trace);
  await page.until('that the others are folded', async () => /\+1\s*of shop\.kit/.test(await calls()));
  await (await page.see(trace)).sendKeys(Key.END, 'w');
  await page.until('the call of the package', async () => /Retry\.run\s+Retry\.java:8/.test(await calls()));
  await page.open('/sources?tab=texts');
  await page.until('the package', async () => /shop\.kit\s+local administrator/.test(await page.text(By.css('.packages'))));
  await page.click(By.css('[aria-label="Take shop.kit back"]'));
  await page.until('that it is taken back', async () => (await page.text(By.css('.packages'))).includes('shop.kit is taken back'));
  await page.click(page.button('undo'));
  await page.until('the package again', async () => /shop\.kit\s+local administrator/.test(await page.text(By.css('.packages'))));
  await page.click(page.button('forget'));
  await page.click(page.button('yes'));
  await page.until('that nothing is registered', async () => (await page.text(By.css('.part'))).includes('Nothing is registered yet'));
}, 60_000);

test('the weave runs in proportion to time, closer and farther, with lanes put together', async () => {
  const failed = truth.find((one) => one.story === 1 && one.outcome === 'failed')!;
  await page.open(`/strands/order:${failed.businessId}`);
  await page.until('the weave', async () => (await page.text(By.css('.tools'))).includes('time'));
  await page.press('p');
  const dots = async (): Promise<number> => (await page.driver.findElements(By.css('.timed [role=option]'))).length;
  await page.until('records at their times', async () => (await dots()) > 8 && (await page.text(By.css('.telling'))).includes('labdb'));
  const height = (): Promise<number> => page.driver.executeScript("return document.querySelector('.timed .bands').getBoundingClientRect().height");
  const whole = await height();
  await page.press('+', '+');
  await page.until('twice as tall', async () => (await height()) > whole * 2 && /zoom=2\.2/.test(await page.address()));
  const before = await page.text(By.css('.telling'));
  await page.press('k');
  await page.until('the record before', async () => (await page.text(By.css('.telling'))) !== before);
  await page.press('0');
  await page.until('all of it', async () => (await height()) === whole);
  const lanes = async (): Promise<string[]> =>
    Promise.all((await page.driver.findElements(By.css('.timed .names span'))).map((one) => one.getText()));
  const components = (await lanes()).length;
  await page.driver.executeScript(
    "const lanes = document.querySelector('.tools select'); lanes.value = 'host'; lanes.dispatchEvent(new Event('change'))",
  );
  await page.until('lanes by host', async () => (await page.address()).includes('lanes=host') && (await lanes()).length <= components);
  // what is taken along is what is seen
  await page.driver.executeScript(
    'window.made = []; const create = URL.createObjectURL; URL.createObjectURL = (blob) => { window.made.push(blob); return create.call(URL, blob); }',
  );
  await page.click(By.css('.acts .link'));
  await page.click(page.button('SVG'));
  await page.until('the file', async () => (await page.driver.executeScript('return window.made.length')) === 1);
  const [root, words, bars] = await page.driver.executeAsyncScript<[string, string, number]>(
    "const done = arguments[arguments.length - 1]; window.made[0].text().then((text) => { const read = new DOMParser().parseFromString(text, 'image/svg+xml'); done([read.documentElement.nodeName, text, read.querySelectorAll('rect').length]); })",
  );
  expect(root).toBe('svg');
  for (const one of [failed.businessId, 'Failed in', 'back to the caller', '@font-face', ...(await lanes()).map((lane) => lane.slice(0, 8))])
    expect(words.includes(one) || one).toBe(true);
  expect(/var\(--|aria-|data-v/.test(words)).toBe(false);
  expect(bars).toBeGreaterThan(5);
  const target = process.env.FADENWEG_TIME_PICTURE;
  if (target) await writeFile(target, words);
});

test('the page has complained of nothing', async () => {
  expect(await browser.complaints()).toEqual([]);
});
