import type { Summary } from '@fadenweg/api';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { By, Key } from 'selenium-webdriver';
import type { Truth } from '@fadenweg/standin';
import { ROOT } from '../packages/launch/src/places.ts';
import { bringMorning, makeMorning, startSystem, type System } from '../packages/launch/src/testing/system.ts';
import { openBrowser, type Browser } from './support/browser.ts';
import { Page } from './support/page.ts';
import { cutAtAnySize } from './support/room.ts';
import { viewsOf } from './support/views.ts';

let system: System;
let browser: Browser;
let page: Page;
let truth: Truth[];
let logs: string;

beforeAll(async () => {
  system = await startSystem(join(ROOT, 'packages/web/dist'));
  browser = await openBrowser();
  page = new Page(browser.driver, system.url);
});
afterAll(async () => {
  await browser?.close();
  await system?.stop();
});

/** As a person reads and copies it, over the values in it that can be taken in hand. */
const sentence = async (): Promise<string> =>
  page.driver.executeScript('return arguments[0].innerText', await page.see(By.css('[data-testid=sentence]')));
const selectedLine = (): Promise<string> => page.text(By.css('[role=option][aria-selected=true]'));
/** Opens the selected record and compares its place with the truth. */
async function reachesCause(one: Truth): Promise<void> {
  await page.press('o');
  // where another component is as right an answer, what that one says itself of this strand
  const right = [one.cause!.record!, ...one.records.filter(({ source }) => one.cause!.accepted.some((name) => source.startsWith(`${name}/`)))];
  await page.until('the record of the truth', async () => {
    const text = await page.text(By.css('[data-testid=record]'));
    return right.some(({ source, line }) => text.includes(`${source}, line ${line},`));
  });
}

describe('from a number to the place where it failed', () => {
  test('before anything is loaded the page says what to do', async () => {
    await page.open('/');
    await page.until('the empty page', async () => (await page.text(By.css('main'))).includes('Nothing is loaded yet'));
    expect(await page.violations()).toEqual([]);
    ({ logs, truth } = await makeMorning(join(system.folder, 'world')));
    await bringMorning(system, logs);
  });

  test('an order: the sentence first, the knot selected, the record that failed', async () => {
    const order = truth.find((one) => one.story === 1 && one.flow === 'lens-order')!;
    await page.open('/');
    await page.find(order.businessId);
    expect(await sentence()).toMatch(
      /^Failed in blank-store, 10:\d\d:\d\d\.\d{3}: labdb said “canceling statement due to lock timeout”, after it had waited 8\.0\d s for a lock/,
    );
    await page.until('the knot selected', async () => (await selectedLine()).includes('canceling statement'));
    await reachesCause(order);
  });

  test('keys walk through the lines and knots, fold the steps, and the address keeps all', async () => {
    const before = await selectedLine();
    await page.press('k');
    await page.until('another line', async () => (await selectedLine()) !== before);
    await page.press('j');
    await page.until('the same line again', async () => (await selectedLine()) === before);
    await page.press(']');
    await page.until('the next knot', async () => (await selectedLine()).includes('reserve failed'));
    await page.press('[');
    await page.until('the knot before', async () => (await selectedLine()) === before);
    const lines = async (): Promise<number> => (await browser.driver.findElements(By.css('[role=option]'))).length;
    const all = await lines();
    await page.press('F');
    await page.until('folded steps', async () => (await lines()) < all);
    const address = await page.address();
    expect(address).toMatch(/fold=all/);
    await browser.driver.navigate().refresh();
    await page.until('the same view after a reload', async () => (await lines()) < all && (await selectedLine()) === before);
    await page.press('F');
    await page.until('unfolded steps', async () => (await lines()) === all);
  });

  test('a caller, in another notation than the logs have: the call, its ladder, the answer that broke it', async () => {
    const call = truth.find((one) => one.story === 8)!;
    const digits = call.attributes.caller!.slice(3);
    await page.find(`0${digits.slice(0, 2)}/${digits.slice(2)}`);
    const own = truth.filter((one) => one.attributes.caller === call.attributes.caller);
    if (own.length > 1) await page.click(By.linkText(call.businessId));
    await page.until('the sentence of the call', async () => (await sentence()).includes('488 Not Acceptable Here'));
    await page.until('messages with direction', async () => (await browser.driver.findElements(By.css('.line .direction'))).length > 5);
    await reachesCause(call);
  });

  test('a job run that ended well and read too little', async () => {
    const run = truth.find((one) => one.story === 2)!;
    await page.find(run.businessId);
    await page.until('the sentence of the run', async () => (await sentence()).includes('“read 118 rows”'));
    await reachesCause(run);
  });

  test('words lead to the records that hold them; values narrow, pieces are taken away, a mistake is told at its place', async () => {
    await page.open('/strands?w=all');
    await page.find('lock timeout');
    const lines = async (): Promise<string[]> =>
      Promise.all((await page.driver.findElements(By.css('[role=option]'))).map(async (line) => (await line.getAttribute('textContent')) ?? ''));
    await page.until('lines', async () => (await lines()).length > 0 && (await lines()).every((line) => line.includes('lock timeout')));
    await page.until('the values', async () => (await page.text(By.css('.values'))).includes('labdb'));
    await page.click(By.css('[title="Only component = labdb"]'));
    await page.until('the piece', async () => (await page.text(By.css('.terms'))).includes('component = labdb'));
    await page.until('the lines of labdb', async () => (await lines()).length > 0 && (await lines()).every((line) => line.includes('labdb')));
    await page.click(By.css('[title="Take “component = labdb” away"]'));
    await page.until('all lines again', async () => (await lines()).some((line) => line.includes('order-desk')));
    await page.driver.findElement(By.css('body')).sendKeys('j', 'o');
    await page.until('the record', async () => (await page.text(By.css('[data-testid=record]'))).includes('lock timeout'));
    await page.find('where level == error');
    await page.until('the mistake', async () => (await page.text(By.css('main'))).includes('Character 14: equality is written ='));
    await page.click(By.css('.wrong .link'));
    await page.until('errors', async () => (await lines()).length > 0);
  });

  test('many identifiers at once: how each ended, and which are nowhere', async () => {
    await page.open('/strands?w=all');
    const orders = truth.filter((one) => one.flow === 'lens-order').slice(0, 250);
    const missing = Array.from({ length: 300 - orders.length }, (_, i) => `LX-9990${String(i).padStart(2, '0')}`);
    await page.find([...orders.map((one) => one.businessId), ...missing].join(' '));
    await page.until('the table', async () => (await page.text(By.css('main'))).includes('300 identifiers at once'));
    const main = await page.text(By.css('main'));
    expect(main).toMatch(new RegExp(`in no record\\s+${missing.length}\\b`));
    for (const one of [...orders.map((order) => order.businessId), ...missing]) expect(main).toContain(one);
    const done = orders.filter((one) => one.outcome === 'done').length;
    expect(main).toMatch(new RegExp(`done\\s+${done}\\b`));
    const never = orders.filter((one) => !one.records.some((record) => record.source.startsWith('surfacing-cell/')));
    await page.until('where they passed', async () => (await page.text(By.css('.groups'))).includes(`surfacing-cell (${never.length})`));
    await page.driver.executeScript(
      "const it = document.querySelector('.groups select'); it.value = 'surfacing-cell'; it.dispatchEvent(new Event('change', { bubbles: true }))",
    );
    await page.until('those alone', async () => (await page.driver.findElements(By.css('tbody tr'))).length === never.length);
    for (const one of never) expect(await page.text(By.css('tbody'))).toContain(one.businessId);
  });

  test('a whole pasted log line leads to its strand', async () => {
    const order = truth.find((one) => one.outcome === 'refused' && one.flow === 'lens-order')!;
    const line = (await readFile(join(logs, 'order-desk/order-desk.log'), 'utf8'))
      .split('\n')
      .find((one) => one.includes(`refused ${order.businessId}`))!;
    await page.find(line);
    await page.until('the refused order', async () => (await sentence()).startsWith('Refused by order-desk'));
    expect(await page.address()).toContain(`order:${order.businessId}`);
    await reachesCause(order);
  });

  test('what is not there is said, with what was looked for and what to do', async () => {
    await page.find('LX-999999');
    await page.until('nothing found', async () => /Nothing found[\s\S]*order LX-999999[\s\S]*No record names/.test(await page.text(By.css('main'))));
    await page.press('/');
    await page.find('x'.repeat(300));
    await page.until('a refusal', async () => (await page.text(By.css('[role=alert]'))).includes('300 characters'));
  });
});

describe('lists and sources', () => {
  test('strands are filtered by clicks, sorted, opened by key, and the address keeps it', async () => {
    await page.open('/strands');
    await page.click(page.button('failed'));
    await page.click(page.button('lens order'));
    const failed = truth.filter((one) => one.flow === 'lens-order' && one.outcome === 'failed').length;
    await page.until('the count of failed orders', async () => (await page.text(By.css('.said[role=status]'))).startsWith(`${failed} of ${failed} `));
    await page.click(page.button('Duration'));
    await page.until('sorted by duration', async () => (await page.address()).includes('sort=-duration'));
    expect(await page.address()).toMatch(/flow=lens-order/);
    await browser.driver.navigate().refresh();
    await page.until('the same list after a reload', async () =>
      (await page.text(By.css('.said[role=status]'))).startsWith(`${failed} of ${failed} `),
    );
    await page.press('j', 'h', Key.ARROW_RIGHT, Key.ARROW_RIGHT);
    await page.until('its flow in hand', async () => (await page.text(By.css('.value-menu:popover-open'))).startsWith('flow lens-order'));
    await page.press(Key.ESCAPE);
    await page.until('the menu closed', async () => (await browser.driver.findElements(By.css('.value-menu:popover-open'))).length === 0);
    await page.press('o');
    await page.until('the slowest failed order', async () => (await sentence()).includes('waited 8.0'));
  });

  test('what is shown is taken along by a menu that stands where it can be seen', async () => {
    await page.open('/strands');
    await page.click(page.button('take along'));
    const below =
      "const box = [...document.querySelectorAll('.formats a')].at(-1).getBoundingClientRect(); return box.height > 0 ? innerHeight - box.bottom : NaN";
    await page.until('its last format', async () => (await browser.driver.executeScript<number>(below)) >= 0);
  });

  test('a change is registered, marked on the time axis, and what was found out about a cause is kept', async () => {
    await page.open('/changes?tab=register');
    await page.until('the form', async () => (await page.text(By.css('.sheet'))).includes('What changed'));
    const [what, component, when] = await browser.driver.findElements(By.css('.sheet input'));
    await what!.sendKeys('new cables in the hall');
    await component!.sendKeys('blank-store');
    await when!.clear();
    await when!.sendKeys('not a time');
    await page.click(page.button('Register the change'));
    await page.until('a refusal', async () => (await page.text(By.css('.sheet'))).includes('The time is not understood'));
    await when!.clear();
    await when!.sendKeys('2026-11-24 10:30:00');
    await page.click(page.button('Register the change'));
    await page.until('the change', async () => /10:30:00\s+registered\s+new cables in the hall/.test(await page.text(By.css('.list'))));
    await page.open('/find');
    await page.click(By.css('.marks a[aria-label*="new cables"]'));
    await page.until(
      'what the mark stands for',
      async () => (await page.address()).includes('/changes?') && (await page.text(By.css('.list'))).includes('new cables'),
    );
    const failed = truth.find((one) => one.story === 1 && one.flow === 'lens-order')!;
    await page.open(`/strands/order:${failed.businessId}`);
    await page.click(page.button('This was the cause'));
    await browser.driver.findElement(By.css('.known textarea')).sendKeys('stock sync in smaller steps');
    await page.click(page.button('Keep'));
    await page.until('what is known', async () => (await page.text(By.css('.known li'))).includes('This was the cause: stock sync in smaller steps'));
    const other = truth.filter((one) => one.story === 1 && one.flow === 'lens-order')[1]!;
    await page.open(`/strands/order:${other.businessId}`);
    await page.until('it at another one', async () => (await page.text(By.css('.known li'))).includes(`on ${failed.businessId}`));
  });

  test('a message is opened, searched and explained by keyboard alone', async () => {
    await page.find("'FrameAnswer'");
    await page.until('answers', async () => /frame-gate/.test(await page.text(By.css('main'))));
    await page.press('j', 'o');
    await page.until('its structure', async () => /FrameAnswer[\s\S]*Reference/.test(await page.text(By.css('[role=tree]'))));
    expect(await page.text(By.css('.codes'))).toMatch(
      /200 HTTP, status[\s\S]*OK: the request succeeded; whether the business did stands in the body/,
    );
    const tree = await browser.driver.findElement(By.css('[role=tree]'));
    await tree.sendKeys(Key.ARROW_LEFT);
    await page.until('it folds', async () => !(await page.text(By.css('[role=tree]'))).includes('Reference'));
    await tree.sendKeys(Key.ARROW_RIGHT, Key.ARROW_DOWN);
    await page.until('the path', async () => (await page.text(By.css('.structured .path'))).includes('/FrameAnswer/Reference'));
    await browser.driver.findElement(By.css('.structured input')).sendKeys('code');
    await page.until('what is looked for', async () => /Status[\s\S]*@code/.test(await page.text(By.css('[role=tree]'))));
    expect(await page.text(By.css('[role=tree]'))).not.toContain('Reference');
    expect(await page.violations('all')).toEqual([]);
  });

  test('strands are grouped by where they gave up; a group opens as the list narrowed to it', async () => {
    await page.open('/strands?by=failed-in');
    await page.until('groups', async () => (await page.text(By.css('.groups'))).includes('blank-store'));
    await page.click(page.button('blank-store'));
    await page.until('the list of these', async () => /^(\d+) of \d+ strands/.test(await page.text(By.css('.said[role=status]'))));
    expect(await page.address()).toMatch(/failedIn=blank-store/);
    expect(await page.address()).not.toMatch(/by=/);
    expect(await page.text(By.css('.filters'))).toContain('gave up in blank-store');
    expect(await page.text(By.css('[role=row][aria-rowindex="1"]'))).toMatch(/^\s*(failed|stalled)/);
  });

  test('strands are grouped by what was found; a slow one is compared with the usual, and the usual of its flow is shown', async () => {
    await page.open('/strands?by=finding');
    await page.until('findings', async () => (await page.text(By.css('.groups'))).includes('Failed in blank-store: labdb said'));
    await page.click(page.button('Slow in order-desk'));
    await page.until('the list of these', async () => /^(\d+) of \d+ strands/.test(await page.text(By.css('.said[role=status]'))));
    expect(await page.text(By.css('.filters'))).toContain('one finding: slowed by order-desk');
    await page.press('j', 'o');
    await page.until('the answer', async () => /^Slow in order-desk, [\d:.]+: “frame .*, 5212 frames” came 2 min/.test(await sentence()));
    await page.click(page.button('the usual lens order'));
    await page.until('what departs', async () => /order-desk late[\s\S]*5212 frames[\s\S]*usually \d+ ms/.test(await page.text(By.css('.sheet'))));
    expect(await page.address()).toMatch(/tab=compare/);
    const departing = (await browser.driver.findElements(By.css('.sheet li'))).length;
    await page.click(page.button('all lines'));
    await page.until('all lines', async () => (await browser.driver.findElements(By.css('.sheet li'))).length > departing + 20);
    const beside = await page.address();
    await page.click(page.button('the nearest good one'));
    await page.until('a good one', async () => /LX-\d+[\s\S]*order-desk slower|only here/.test(await page.text(By.css('.sheet'))));
    expect(await page.address()).toMatch(/beside=good/);
    await page.press('s');
    await page.until('the story', async () =>
      /It began at[\s\S]*Here it lost 2 min[\s\S]*It ended at .*: slow/.test(await page.text(By.css('.story'))),
    );
    await page.open(beside.slice(beside.indexOf('/strands')));
    await page.click(By.linkText('the usual lens order'));
    await page.until('the usual', async () => /^The usual lens order[\s\S]*Learned from 1\d\d that went well/.test(await page.text(By.css('main'))));
    const rows = async (): Promise<number> => (await browser.driver.findElements(By.css('tbody tr'))).length;
    const often = await rows();
    await page.click(page.button('show them'));
    await page.until('the rare ones too', async () => (await rows()) > often && (await page.address()).includes('rare=yes'));
    await page.open('/strands');
    await page.click(page.button('doubled'));
    await page.click(page.button('what these have in common'));
    const shop = truth.find((one) => one.outcome === 'doubled')!.attributes.shop!;
    await page.until('their shop', async () =>
      new RegExp(`12 of 12 strands[\\s\\S]*shop = ${shop}[\\s\\S]*all[\\s\\S]*of these`).test(await page.text(By.css('.sheet'))),
    );
    expect(await page.address()).toMatch(/common=yes/);
    await page.open('/usual/frame-catalogue-job');
    await page.until('why there is none', async () => (await page.text(By.css('[role=alert]'))).includes('12 strands'));
  });

  test('a clock that is off is told with what it is known by, set by hand and let go', async () => {
    await page.open('/sources?tab=hosts');
    await page.until('the clock', async () => /cell-2[\s\S]*off, put right[\s\S]*2\.90 s/.test(await page.text(By.css('main'))));
    expect(await page.text(By.css('.sheet'))).toMatch(/2\.90 s ahead, give or take \d/);
    await page.fill(By.css('.sheet input'), 'much');
    await page.click(page.button('Set by hand'));
    await page.until('the reason', async () => (await page.text(By.css('.sheet [role=alert]'))).includes('no number of seconds'));
    await page.fill(By.css('.sheet input'), '1.5');
    await page.click(page.button('Set by hand'));
    await page.until('the clock as set', async () => /Set by local administrator: 1\.50 s ahead/.test(await page.text(By.css('.sheet'))));
    await page.click(page.button('Let what was found hold'));
    await page.until('the clock as found', async () => (await page.text(By.css('.sheet'))).includes('2.90 s ahead'));
  });

  test('the window narrows the list and refuses an end before its begin', async () => {
    await page.open('/strands?w=2026-11-24T05:30:00.000Z~2026-11-24T05:31:00.000Z');
    await page.until('few strands', async () => /^\d{1,2} of/.test(await page.text(By.css('.said[role=status]'))));
    await page.press('w');
    await page.see(By.css('input[type=datetime-local]'));
    await page.fill(By.css('input[type=datetime-local]'), '2026-11-24T10:15:00', '2026-11-24T09:15:00');
    await page.click(page.button('Set window'));
    await page.until('the reason', async () => (await page.text(By.css('[role=alert]'))).includes('after the begin'));
  });

  test('files that are chosen on Sources are read, and their records can be found', async () => {
    const file = join(system.folder, 'own.log');
    await writeFile(
      file,
      '2026-11-24 11:00:00,000 INFO  [exec-1] o.b.X - begins LX-555555\n2026-11-24 11:00:01,000 ERROR [exec-1] o.b.X - LX-555555 broke\n',
    );
    await page.open('/sources');
    await (await page.see(By.css('[data-testid=files]'))).sendKeys(file);
    await page.until('the new source, read', async () => /own\.log[\s\S]*\bread\b/.test(await page.text(By.css('.list'))));
    await page.click(page.button('Imports'));
    // those before it are done, too
    await page.until(
      'the import, done',
      async () => (await page.text(By.css('table'))).includes('done') && (await system.get<Summary>('/summary')).still,
    );
    await page.find('LX-555555');
    await page.until('its strand', async () => (await sentence()).includes('LX-555555 broke'));
  });

  test('log content is shown as text, never as markup', async () => {
    const file = join(system.folder, 'markup.log');
    await writeFile(
      file,
      '2026-11-24 11:00:00,000 ERROR [exec-1] o.b.X - LX-666666 <img src=x onerror="document.title=\'owned\'"> \u202e\u001b[31mred\n',
    );
    await page.open('/sources');
    await (await page.see(By.css('[data-testid=files]'))).sendKeys(file);
    await page.until('the new source, read', async () => /markup\.log[\s\S]*\bread\b/.test(await page.text(By.css('.list'))));
    await page.click(page.button('Imports'));
    await page.until(
      'the imports, done',
      async () => /done[\s\S]*done/.test(await page.text(By.css('table'))) && !/reading|receiving/.test(await page.text(By.css('table'))),
    );
    await page.find('LX-666666');
    await page.until('the markup as text', async () => (await selectedLine()).includes('<img src=x'));
    expect(await browser.driver.getTitle()).not.toContain('owned');
  });

  test('no view breaks a rule of accessibility, in either theme, and none cuts a text that can be read nowhere, at any size', async () => {
    const failed = truth.find((one) => one.story === 1 && one.flow === 'lens-order')!;
    const call = truth.find((one) => one.story === 8)!;
    const views = viewsOf(failed.businessId, call.businessId);
    const broken: string[] = [];
    for (const path of views) {
      await page.open(path);
      await page.until(`the content of ${path}`, async () => (await page.text(By.css('main'))).length > 30);
      broken.push(...(await page.violationsInBoth(browser)).map((one) => `${path} ${one}`));
      broken.push(...(await cutAtAnySize(browser)).map((one) => `${path} ${one}`));
    }
    expect(broken).toEqual([]);
  }, 400_000);

  test('the page has complained of nothing but what was provoked', async () => {
    expect(
      (await browser.complaints()).filter((one) => !/\/api\/search\?text=x+.* 400|\/flows\/frame-catalogue-job\/usual .* 404/.test(one)),
    ).toEqual([]);
  });
});
