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
  await generate({ out, seed: 5, faultRate: 0.02, storyDay: FULL_DAY, stretches: [{ from: FULL_DAY + 6 * HOUR, hours: 4, records: 14_000 }] });
  await bringMorning(system, join(out, 'logs'));
}, 300_000);
afterAll(async () => {
  await browser?.close();
  await system?.stop();
});

const main = (): Promise<string> => page.text(By.css('main'));
const sheet = (): Promise<string> => page.text(By.css('aside'));

test('from a caller, in any notation, to the message that tells why the call dropped', async () => {
  const dropped = (await system.get<{ items: { caller: { name: string } }[] }>('/calls?from=2026-11-24T05:00:00Z&to=2026-11-24T10:00:00Z&environment=production&zone=Europe/Berlin&outcome=failed')).items[0]!.caller.name; // prettier-ignore
  // Find has an l of its own, which is not meant behind g
  await page.open('/find?w=all');
  await page.until('lines', async () => (await browser.driver.findElements(By.css('[role=listbox] [role=option], [role=row], .line'))).length > 0);
  await page.press('j', 'g', 'l');
  await page.until('Calls', async () => (await page.address()).startsWith('/calls'));
  await page.open('/calls?w=all');
  await page.until('the list', async () => /\d+ calls/.test(await main()));
  await page.until('what is told of the first', async () => /First heard after/.test(await sheet()));
  expect(await page.violationsInBoth(browser)).toEqual([]);
  await page.click(By.css('#call-number'));
  await page.press(`0${dropped.slice(3, 5)} ${dropped.slice(5, 10)}-${dropped.slice(10)}`);
  await page.click(page.button('narrow'));
  await page.until('just those', async () => (await page.address()).includes('number='));
  const line = By.xpath('//*[@role="option"][.//*[name()="svg"]][1]');
  await page.until('one caller', async () => (await page.text(line)).includes(dropped));
  await page.press('o');
  await page.until('its messages', async () => /^\/strands\/.*view=messages/.test(await page.address()));
  await page.until('what is amiss', async () => /A change of it was refused/.test(await sheet()));
  await page.click(page.button('the message'));
  await page.until('that message', async () => /488 Not Acceptable Here/.test(await page.text(By.css('[role=status].telling'))));
  expect(await page.violationsInBoth(browser)).toEqual([]);
  await page.press('k');
  await page.until('the one before', async () => /INVITE/.test(await page.text(By.css('[role=status].telling'))));
  await page.press('m');
  await page.until('its records', async () => !(await page.address()).includes('view=messages'));
});

test('what can be done is found by its name, and the keys of a view are told', async () => {
  await page.press('?');
  const dialog = By.css('.v-overlay--active [role=document]');
  await page.until('keys of the strand and of everywhere', async () =>
    /This strand[\s\S]*next knot[\s\S]*Everywhere[\s\S]*go to Calls/.test(await page.text(dialog)),
  );
  expect(await page.violationsInBoth(browser)).toEqual([]);
  await page.press(Key.ESCAPE);
  await page.until('the list is gone', async () => (await browser.driver.findElements(dialog)).length === 0);
  await browser.driver.actions().keyDown(Key.CONTROL).sendKeys('k').keyUp(Key.CONTROL).perform();
  const field = By.css('.v-overlay--active input[role=combobox]');
  const focused = async (): Promise<boolean> =>
    (await browser.driver.switchTo().activeElement().getAttribute('placeholder')) === 'some letters of it';
  await page.until('the field', focused);
  await page.press('data');
  await page.until('one command', async () => (await browser.driver.findElements(By.css('.v-overlay--active [role=option]'))).length === 1);
  expect(await page.violationsInBoth(browser)).toEqual([]);
  await page.press(Key.ENTER);
  await page.until('the sheet', async () => (await page.address()).includes('tab=data'));
  await page.until('the field is gone', async () => (await browser.driver.findElements(field)).length === 0);
  await browser.driver.actions().keyDown(Key.CONTROL).sendKeys('k').keyUp(Key.CONTROL).perform();
  await page.until('the field again', focused);
  await page.press('xyz');
  await page.until('nothing of that name', async () => /Nothing of that name/.test(await page.text(By.css('.v-overlay--active'))));
  await page.press(Key.ESCAPE);
  await page.until('the field is closed', async () => (await browser.driver.findElements(field)).length === 0);
});

test('a number that nobody has: said so, with a way back', async () => {
  await page.open('/calls?w=all&number=0000');
  await page.until('that none fits', async () => /No call fits/.test(await main()));
  await page.click(page.button('Show all calls of this time'));
  await page.until('all', async () => !(await page.address()).includes('number='));
});

test('from a thin run to what it wrote, to those that came after, and to the page of the table', async () => {
  await page.open('/strands/run%3APL-0423?tab=data');
  await page.until('what it touched', async () => /table written, \d+ rows/.test(await sheet()));
  await page.until('who came after', async () => /read it before it was written again, and may lack/.test(await sheet()));
  expect(await page.violationsInBoth(browser)).toEqual([]);
  await page.click(By.xpath('//aside//a[normalize-space(.)="price"]'));
  await page.until('its page', async () => (await page.address()).startsWith('/data'));
  await page.until('who writes it', async () => /written by price-list job/.test(await sheet()));
  await page.open('/data?w=all');
  await page.until('the list', async () => /price[\s\S]*read by invoice-export job/.test(await main()));
  expect(await page.violationsInBoth(browser)).toEqual([]);
  const thin = By.xpath('//aside//li[contains(., "PL-0423")]//a');
  await page.click(By.xpath('//*[@role="option"][contains(., "price-list job") and contains(., "table")]'));
  await page.click(thin);
  await page.until('the run', async () => /^\/strands\/run%3APL-0423|^\/strands\/run:PL-0423/.test(await page.address()));
});
