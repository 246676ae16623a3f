import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { join } from 'node:path';
import { By, Key } from 'selenium-webdriver';
import { FULL_DAY, generate } from '@fadenweg/standin';
import { ROOT } from '../packages/launch/src/places.ts';
import { bringMorning, startSystem, type System } from '../packages/launch/src/testing/system.ts';
import { openBrowser, type Browser } from './support/browser.ts';
import { Page } from './support/page.ts';

const DAY = 86_400_000_000;
let system: System;
let browser: Browser;
let page: Page;

beforeAll(async () => {
  system = await startSystem(join(ROOT, 'packages/web/dist'));
  browser = await openBrowser();
  page = new Page(browser.driver, system.url);
  const out = join(system.folder, 'world');
  const days = Array.from({ length: 10 }, (_, i) => ({ from: FULL_DAY - (10 - i) * DAY, hours: 24, records: 5000 }));
  await generate({ out, seed: 3, faultRate: 0.02, storyDay: FULL_DAY, stretches: [...days, { from: FULL_DAY, hours: 24, records: 80_000 }] });
  await bringMorning(system, join(out, 'logs'));
}, 300_000);
afterAll(async () => {
  await browser?.close();
  await system?.stop();
});

const list = (): Promise<string> => page.text(By.css('.list'));
const rounds = async (): Promise<void> => {
  await page.open('/rounds');
  await page.until('what departs', async () => (await list()).includes('gravest first'));
};

/** Stories of the day, by what stands in the list and what the strand behind it says. */
const STORIES: [string, RegExp, RegExp][] = [
  ['locks', /lock timeout/, /labdb\s+said “canceling statement due to lock timeout”/],
  ['a thin price list', /read 118 rows/, /“read 118 rows”/],
  ['lost messages', /Nothing more after relay.*queue=surfacing\.jobs/, /Nothing more after relay/],
  ['a new version', /PrismOffGridException/, /PrismOffGridException/],
  ['a queue of the coating', /Slow in coating-cell/, /Slow in coating-cell/],
  ['dropped calls', /488 Not Acceptable/, /488 Not Acceptable Here/],
  ['a file that came twice', /Doubled in order-desk/, /Doubled in order-desk/],
  ['a changed setting', /material not allowed/, /material not allowed/],
];

describe('Rounds is the first view', () => {
  test('and shows each flow, what of it departs, and what it is compared with', async () => {
    await page.open('/');
    await page.until('the cloth', async () => (await page.text(By.css('.cloth'))).includes('lens order'));
    expect(await page.address()).toMatch(/^\/rounds/);
    const text = await page.text(By.css('.cloth'));
    expect(text).toMatch(/compared with the same hours of \d+ earlier days/);
    expect(text).toMatch(/\d+ cells depart/);
    expect(await page.violationsInBoth(browser)).toEqual([]);
  });

  test.each(STORIES)('leads to %s without a number being known', async (_, listed, told) => {
    await rounds();
    const links = await page.driver.findElements(By.css('.list .title'));
    const texts = await Promise.all(links.map((one) => one.getAttribute('title')));
    const place = texts.findIndex((one) => listed.test(one!));
    expect({ place, texts: place < 0 ? texts : [] }).toEqual({ place: expect.any(Number), texts: [] });
    await page.driver.executeScript("arguments[0].scrollIntoView({ block: 'center' })", links[place]!);
    await links[place]!.click();
    await page.until(
      'its strands',
      async () => (await page.address()).startsWith('/strands') && (await page.driver.findElements(By.css('.row a'))).length > 0,
    );
    await page.click(By.css('.row a'));
    await page.until('what happened', async () => told.test(await page.text(By.css('[data-testid=sentence]'))));
  });

  test('a wrong clock and a machine that began anew stand there too', async () => {
    await rounds();
    const text = await list();
    expect(text).toMatch(/The clock of cell-2 is 2\.9\d? s ahead/);
    expect(text).toMatch(/asking app-2 to shut down/);
  });
});

test('from a marked cell to the cause by keyboard alone', async () => {
  await rounds();
  await page.press('j');
  await page.until('the first cell in focus', async () => (await page.driver.switchTo().activeElement().getAttribute('data-cell')) === '0-0');
  const [slot, column] = (await page.driver.executeScript("return document.querySelector('.cell.marked.madder').dataset.cell.split('-').map(Number)")) as [number, number]; // prettier-ignore
  for (let i = 0; i < slot; i++) await page.press(Key.ARROW_DOWN);
  for (let i = 0; i < column; i++) await page.press(Key.ARROW_RIGHT);
  const words = await page.driver.switchTo().activeElement().getAttribute('aria-label');
  expect(words).toMatch(/Departs: \d+ not done/);
  await page.press(Key.ENTER);
  await page.until(
    'its strands by finding',
    async () => /^\/strands.*by=finding/.test(await page.address()) && (await page.text(By.css('.groups'))).includes('failed'),
  );
  const focus = async (): Promise<string> => (await page.driver.switchTo().activeElement().getAttribute('class')) ?? '';
  for (let i = 0; i < 150 && !(await focus()).includes('link name'); i++) await page.press(Key.TAB);
  expect(await focus()).toContain('link name');
  await page.press(Key.ENTER);
  await page.until('the list', async () => (await page.driver.findElements(By.css('.row a'))).length > 0);
  await page.press('j', 'o');
  await page.until('the cause', async () => (await page.text(By.css('[data-testid=sentence]'))).length > 20);
});

test('an instant is pinned, stepped from and taken back; the address restores it', async () => {
  await rounds();
  await page.click(By.css('.row:nth-of-type(11) .time button'));
  await page.until('the state then', async () => /At 2026-11-24 09:00.*\d+ running/s.test(await page.text(By.css('.instant'))));
  expect(await page.text(By.css('.instant'))).toContain('lens order');
  expect(await page.violations()).toEqual([]);
  const address = await page.address();
  await page.click(page.button('later'));
  await page.until('an hour later', async () => (await page.text(By.css('.instant'))).includes('At 2026-11-24 10:00'));
  await page.open(address);
  await page.until('the same again', async () => (await page.text(By.css('.instant'))).includes('At 2026-11-24 09:00'));
  await page.click(page.button('close'));
  await page.until('the cloth alone', async () => (await page.driver.findElements(By.css('.instant'))).length === 0);
});

test('what is in hand goes below, with who said so, and can be taken back', async () => {
  await rounds();
  const first = (await list()).split('\n')[2]!;
  await page.click(By.css('.list .small'));
  await page.fill(By.css('.list form input:not([type])'), 'the desk looks at it');
  await page.click(page.button('Note it'));
  await page.until('it stands below', async () => /1 in hand or tolerated/.test(await list()) && !(await list()).includes(first));
  await page.click(By.css('.list summary'));
  await page.until('who said so', async () => /in hand.*by local administrator: the desk looks at it/s.test(await list()));
  await page.click(page.button('change the note'));
  expect(await page.violations()).toEqual([]);
  await page.click(page.button('Take it back'));
  await page.until('it stands above again', async () => !(await list()).includes('in hand or tolerated\n') && (await list()).includes(first));
});

test('nothing in the window is said, with what to do', async () => {
  await page.open('/rounds?w=2026-10-01T00:00:00.000Z~2026-10-01T06:00:00.000Z');
  await page.until('that nothing came', async () => (await page.text(By.css('.cloth'))).includes('No strand began in this window'));
  await page.until('that nothing departs', async () => (await list()).includes('Nothing departs from the usual'));
});

test('a change tells what was different after it than before', async () => {
  await page.open('/changes?tab=since');
  await page.click(By.xpath('//*[@role="option"][contains(., "4.12.0 instead of 4.11.0")]'));
  await page.until('the finding that came with it', async () => {
    const text = await page.text(By.css('[role=tabpanel]'));
    return /PrismOffGridException/.test(text) && /none\s+of [\d,]+ before, \d+ of [\d,]+ since; hardly chance/.test(text);
  });
  expect(await page.text(By.css('[role=tabpanel] table'))).toContain('more amiss');
  expect(await page.violationsInBoth(browser)).toEqual([]);
});

test('from what departs to the same component against everybody, to the other version, and to its strands', async () => {
  await rounds();
  await page.click(By.xpath('//*[contains(@class, "line")][contains(., "PrismOffGridException")]//a[.="lens-calc"]'));
  await page.until('what is compared', async () => (await page.text(By.css('.against'))).includes('component lens-calc against everybody'));
  expect(await page.text(By.css('.against'))).toContain('no others: every one of its strands comes this way');
  await page.open('/changes');
  await page.click(By.xpath('//*[@role="option"][contains(., "4.12.0 instead of 4.11.0")]'));
  await page.click(By.linkText('4.12.0 against other versions'));
  const verdicts = (): Promise<string> => page.text(By.css('.verdicts'));
  await page.until('what is more', async () => /More are failed: \d+ of [\d,]+, of others/.test(await verdicts()));
  expect(await verdicts()).toMatch(/As others, and so not it: .*in databases/);
  expect(await page.violationsInBoth(browser)).toEqual([]);
  await page.click(By.linkText('4.11.0'));
  await page.until('the other version', async () => /Fewer are failed: none of/.test(await verdicts()));
  await page.click(By.partialLinkText('strands'));
  await page.until('its strands', async () => /^\/strands.*component=lens-calc/.test(await page.address()));
});

test('at any name of a strand there is a way to it, and none known is said', async () => {
  await page.open('/against?what=host&name=nowhere');
  await page.until('that there is none', async () => (await page.text(By.css('main'))).includes('There is no host “nowhere”'));
  await page.open('/strands?outcome=failed&sort=started');
  await page.click(By.css('[aria-rowindex="1"] a'));
  await page.until('the strand', async () => (await page.address()).startsWith('/strands/'));
  await page.click(By.xpath('//*[@role="tab"][contains(., "Time")]'));
  await page.click(By.xpath('//*[@role="tabpanel"]//p[contains(., "Against everybody")]//a'));
  await page.until('its party', async () => /(shop|phone|customer) .* against everybody/.test(await page.text(By.css('main'))));
});

test('flows are put into a group, which folds into one column and leads to all of them', async () => {
  await page.open('/rounds?groups=1');
  const field = (label: string): By => By.xpath(`//section[contains(@class, "groups")]//label[contains(., "${label}")]//input`);
  for (const label of ['price-list', 'stock-sync']) {
    await page.click(field(label));
    await page.press('nightly', Key.TAB);
    await page.until('it is kept', async () => (await page.text(By.css('.head'))).includes('nightly'));
  }
  await page.click(By.css('.head .group'));
  await page.until(
    'one column',
    async () => (await page.text(By.css('.head'))).includes('nightly (2)') && (await page.address()).includes('fold=nightly'),
  );
  expect(await page.violationsInBoth(browser)).toEqual([]);
  await page.click(By.xpath('//*[@class="head grouped"]//button[contains(., "nightly (2)")]'));
  await page.until('strands of both', async () =>
    /flow=(price-list|stock-sync)[^&]*(price-list|stock-sync)/.test(decodeURIComponent(await page.address())),
  );
});
