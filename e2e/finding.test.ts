import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
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

/** The lines in sight, in the order in which they stand. */
const lines = (on = page): Promise<string[]> =>
  on.driver.executeScript(
    "return [...document.querySelectorAll('[data-lines] [role=option]')].map((one) => [one.getBoundingClientRect().top, one.textContent.trim()]).sort((a, b) => a[0] - b[0]).map(([, text]) => text)",
  );
const pieces = (): Promise<string> => page.text(By.css('.terms'));
const choose = (label: string): Promise<unknown> =>
  page.driver.executeScript(
    "const it = document.querySelector('[aria-label=\"Show the result as\"]'); it.value = arguments[0]; it.dispatchEvent(new Event('change', { bubbles: true }))",
    label,
  );

describe('from everything to one order', () => {
  test('by clicks only', async () => {
    await page.open('/find?w=all');
    await page.until('the values', async () => (await page.text(By.css('.values'))).includes('outcome'));
    await page.click(By.css('[title="Only outcome = failed"]'));
    await page.until('the piece', async () => (await pieces()).includes('outcome = failed'));
    await page.until('the values of what failed', async () => (await page.text(By.css('.values'))).includes('order-desk'));
    await page.click(By.css('[title="Only component = order-desk"]'));
    await page.until(
      'lines of order-desk alone',
      async () => (await lines()).length > 0 && (await lines()).every((one) => /order-desk|quiet/.test(one)),
    );
    await choose('strand');
    const failed = truth.filter((one) => one.flow === 'lens-order' && one.outcome === 'failed').length;
    await page.until('the strands', async () => (await page.text(By.css('.groups .head'))).startsWith(`${failed} strands`));
    await page.click(By.css('.groups [role=option]'));
    await page.until('the sentence', async () => (await page.text(By.css('[data-testid=sentence]'))).startsWith('Failed in'));
  });

  test('by keyboard only', async () => {
    await page.open('/find?w=all');
    await page.press('/');
    await page.until('the finder in focus', async () => (await page.driver.switchTo().activeElement().getAttribute('role')) === 'combobox');
    await page.driver.switchTo().activeElement().sendKeys('where outc');
    await page.until('the field offered', async () => (await page.text(By.css('.choices'))).includes('outcome'));
    await page.driver.switchTo().activeElement().sendKeys(Key.TAB, '= ');
    await page.until('values offered', async () => (await page.text(By.css('.choices'))).includes('failed'));
    await page.driver.switchTo().activeElement().sendKeys('fai', Key.ARROW_DOWN);
    await page.until('the value chosen', async () => (await page.text(By.css('.choices li[aria-selected=true]'))).startsWith('failed'));
    await page.driver.switchTo().activeElement().sendKeys(Key.ENTER);
    await page.until(
      'the search whole',
      async () => (await page.driver.switchTo().activeElement().getAttribute('value')) === 'where outcome = failed ',
    );
    await page.driver.switchTo().activeElement().sendKeys(Key.ENTER);
    await page.until('the piece', async () => (await pieces()).includes('outcome = failed'));
    await page.until('lines', async () => (await lines()).length > 5);
    await page.press('j', 'j', 'o');
    await page.until('the record', async () => (await page.text(By.css('[data-testid=record]'))).includes('its strand'));
    await page.press('l');
    await page.until('the sentence', async () => (await page.text(By.css('[data-testid=sentence]'))).startsWith('Failed in'));
  });

  test('a field that does not exist is told, with what was meant', async () => {
    await page.open(`/find?w=all&q=${encodeURIComponent('where componet = labdb')}`);
    await page.click(page.button('Did you mean component'));
    await page.until('records of labdb', async () => (await lines()).length > 0 && (await lines()).every((one) => one.includes('labdb')));
  });
});

describe('reading many sources as one', () => {
  test('two sources off, one alone, all again; the lines bear letters', async () => {
    await page.open('/find?w=all&order=oldest&tab=sources');
    await page.until('the sources', async () => (await page.text(By.css('.sheet'))).includes('relay/relay.log'));
    const turn = (path: string): Promise<void> => page.click(By.xpath(`//li[contains(., "${path}")]//input`));
    await page.until('relay in the list', async () => (await lines()).some((one) => one.includes('relay')));
    await turn('relay/relay.log');
    await turn('edge/access.log');
    const components = (): Promise<string[]> =>
      page.driver.executeScript("return [...document.querySelectorAll('.line .component')].map((one) => one.textContent)");
    await page.until('neither of the two', async () => (await components()).length > 20 && !(await components()).includes('relay'));
    expect(await pieces()).toContain('without 2 sources');
    await page.until('letters', async () => (await page.driver.findElements(By.css('.line .letter'))).length > 10);
    await page.click(By.xpath('//li[contains(., "labdb/postgresql.csv")]//button'));
    await page.until('labdb alone', async () => (await components()).length > 5 && (await components()).every((one) => one === 'labdb'));
    await page.click(By.css('[title="Read all sources again"]'));
    await page.until('all again', async () => (await components()).includes('relay'));
  });

  test('around a record and back', async () => {
    await page.open(`/find?w=all&q=${encodeURIComponent("'canceling statement' where component = labdb")}`);
    await page.until('the lines', async () => (await lines()).length > 0 && (await lines()).every((one) => one.includes('canceling statement')));
    await page.press('j');
    await page.press('a');
    await page.until('what stood around it', async () => (await lines()).some((one) => !one.includes('canceling statement')));
    await page.until('the line in sight and chosen', async () =>
      (await page.text(By.css('[role=option][aria-selected=true]'))).includes('canceling statement'),
    );
    await page.driver.navigate().back();
    await page.until(
      'the search again',
      async () => (await lines()).length > 0 && (await lines()).every((one) => one.includes('canceling statement')),
    );
  });

  test('28 lines at least in the frame, 34 on the full screen, in which menus and sheets work', async () => {
    await page.open('/find?w=all');
    const whole = (): Promise<number> =>
      page.driver.executeScript(
        "const box = document.querySelector('[data-lines]').getBoundingClientRect(); return [...document.querySelectorAll('[data-lines] [role=option]')].filter((one) => { const own = one.getBoundingClientRect(); return own.top >= box.top - 1 && own.bottom <= box.bottom + 1; }).length",
      );
    await page.until('lines', async () => (await lines()).length > 28);
    expect(await whole()).toBeGreaterThanOrEqual(28);
    await page.press('v');
    await page.until('more lines', async () => (await whole()) >= 34);
    await page.click(By.css('.terms .drop-button:nth-of-type(2), .terms .drop-button'));
    await page.until('a menu', async () => (await page.driver.findElements(By.css('.drop-panel:popover-open'))).length === 1);
    await page.press(Key.ESCAPE);
    await page.press('v');
    await page.until('the frame again', async () => (await page.driver.findElement(By.css('.band'))).isDisplayed());
  });

  test('a column is added, moved by key, and stays in the address; whole messages are wrapped', async () => {
    await page.open('/find?w=all&q=lock');
    await page.until('lines', async () => (await lines()).length > 0);
    await page.click(By.xpath('//button[.//span[text()="view"]]'));
    await page.until('the menu', async () => (await page.driver.findElements(By.css('.drop-panel:popover-open'))).length === 1);
    await (await page.see(By.css('[aria-label="Field for a new column"]'))).sendKeys('sqlstate', Key.ENTER);
    await page.until('the column', async () => (await page.address()).includes('sqlstate:110'));
    await page.click(By.xpath('//label[contains(., "whole messages")]/input'));
    await page.until('wrapped', async () => (await page.address()).includes('view=wrap'));
    await page.press(Key.ESCAPE);
    const column = await page.see(By.css('[aria-label="Column sqlstate"]'));
    await column.sendKeys(Key.ARROW_LEFT);
    await page.until('before the level', async () => /component:112,sqlstate:110,level/.test(await page.address()));
    await page.driver.navigate().refresh();
    await page.until('the same columns', async () => (await page.driver.findElements(By.css('[aria-label="Column sqlstate"]'))).length === 1);
    await page.until('wrapped lines', async () => (await page.driver.findElements(By.css('.line.wrap'))).length > 0);
  });
});

describe('noise', () => {
  test('quiet records are counted in their place and shown there', async () => {
    await page.open('/find?w=all&order=oldest');
    await page.until('hidden ones', async () => (await lines()).some((one) => /quiet records? hidden/.test(one)));
    const before = (await lines()).filter((one) => /quiet records? hidden/.test(one)).length;
    await page.click(By.css('.between'));
    await page.until('shown in their place', async () => (await page.driver.findElements(By.css('.line.quiet'))).length > 0);
    expect((await lines()).filter((one) => /quiet records? hidden/.test(one)).length).toBeLessThan(before);
  });

  test('a rule is made from a line, tried, saved, and taken away again', async () => {
    await page.open(`/find?w=all&q=${encodeURIComponent("'catalogue page shown'")}`);
    await page.until('lines', async () => (await lines()).length > 5);
    await page.press('j');
    await page.click(page.button('Quiet'));
    await page.click(page.button('Hide what looks like'));
    await page.click(page.button('Try it'));
    await page.until('what it hides', async () => /hides ([\d,]+) of \1 records/.test(await page.text(By.css('.sheet'))));
    await page.click(By.css('.sheet .v-btn[type=submit]'));
    await page.until('nothing but the count', async () => (await lines()).length === 1 && /quiet records hidden/.test((await lines())[0]!));
    await page.click(page.button('take away'));
    await page.until('the lines again', async () => (await lines()).length > 5);
    await page.click(page.button('undo'));
    await page.until('hidden again', async () => (await lines()).length === 1);
    await page.click(page.button('take away'));
    await page.until('and shown', async () => (await lines()).length > 5);
  });
});

describe('kept and shared', () => {
  test('a search is saved, found in the menu, and forgotten with undo', async () => {
    await page.open('/find?w=all&q=lock&order=oldest');
    const menu = By.xpath('//button[.//span[text()="saved"]]');
    await page.click(menu);
    await (await page.see(By.css('[aria-label="Name for this search"]'))).sendKeys('Locks of mine');
    await page.click(By.css('.keep .v-btn'));
    await page.until('it in the list', async () => (await page.text(By.css('.drop-panel:popover-open'))).includes('Locks of mine'));
    await page.press(Key.ESCAPE);
    await page.open('/find?w=all');
    await page.click(menu);
    await page.click(page.button('Locks of mine'));
    await page.until('the search restored', async () => /q=lock/.test(await page.address()) && /order=oldest/.test(await page.address()));
    await page.click(menu);
    await page.click(By.css('[aria-label="Forget Locks of mine"]'));
    await page.click(page.button('undo'));
    await page.until('it is back', async () => (await page.driver.findElements(By.css('[aria-label="Forget Locks of mine"]'))).length === 1);
  });

  test('the copied link gives the same view in a second browser, with exact times', async () => {
    await page.open('/find?w=hour&q=timeout&order=oldest&cols=component:90,message');
    await page.until('lines', async () => (await lines()).length > 0);
    await page.press('j', 'o');
    await page.until('the record', async () => (await page.text(By.css('[data-testid=record]'))).includes('its strand'));
    await page.driver.executeScript('navigator.clipboard.writeText = async (text) => { window.copied = text; }');
    await page.press('c');
    await page.until('it is said', async () => (await page.text(By.css('body'))).includes('The link to this view copied'));
    const link: string = await page.driver.executeScript('return window.copied');
    expect(decodeURIComponent(link)).toMatch(/w=\d{4}-\d\d-\d\dT.*~\d{4}-/);
    const mine = await lines();
    const second = await openBrowser();
    try {
      const other = new Page(second.driver, system.url);
      await other.open(link.replace(system.url, ''));
      await other.until('the same lines', async () => JSON.stringify(await lines(other)) === JSON.stringify(mine));
      await other.until('the same record', async () => (await other.text(By.css('[data-testid=record]'))).includes('its strand'));
    } finally {
      await second.close();
    }
    await page.press('y');
    await page.until('the text', async () => String(await page.driver.executeScript('return window.copied')).includes('Times of Europe/Berlin.'));
    expect(await page.driver.executeScript('return window.copied')).toMatch(
      /^2026-11-24 \d\d:.*\n {4}.*timeout[\s\S]*, line \d+\)[\s\S]*http:\/\/127/,
    );
  });

  test('the original file around a record', async () => {
    await page.open(`/find?w=all&q=${encodeURIComponent("'canceling statement' where component = labdb")}`);
    await page.until('lines', async () => (await lines()).length > 0);
    await page.press('j', 'o');
    await page.click(By.linkText('the original file here'));
    await page.until('the line, chosen', async () => (await page.text(By.css('.original .here'))).includes('canceling statement'));
    expect(await page.violations()).toEqual([]);
  });
});

test('no view of Find breaks a rule of accessibility, in either theme', async () => {
  const broken: string[] = [];
  for (const path of [
    '/find?w=all&tab=sources&off=3&mark=order',
    '/find?w=all&tab=quiet',
    '/find?w=all&show=strand',
    '/find?q=lock&w=all&view=wrap.close',
    '/find?w=all&show=shape',
  ]) {
    await page.open(path);
    await page.until(`the content of ${path}`, async () => (await lines()).length > 3);
    broken.push(...(await page.violationsInBoth(browser)).map((one) => `${path} ${one}`));
  }
  await page.open('/find?w=all');
  await page.click(By.xpath('//button[.//span[text()="view"]]'));
  await page.until('the menu', async () => (await page.text(By.css('.drop-panel:popover-open'))).includes('Database'));
  broken.push(...(await page.violationsInBoth(browser)));
  expect(broken).toEqual([]);
});
