import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { once } from 'node:events';
import { createWriteStream } from 'node:fs';
import { mkdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { finished } from 'node:stream/promises';
import { By, Key } from 'selenium-webdriver';
import { filesBelow } from '../packages/launch/src/client.ts';
import { ROOT } from '../packages/launch/src/places.ts';
import { startSystem, type System } from '../packages/launch/src/testing/system.ts';
import { openBrowser, type Browser } from './support/browser.ts';
import { Page } from './support/page.ts';

/** Strange content and much of it: all of it is shown as text, and reached to its end. */
let system: System;
let browser: Browser;
let page: Page;

const MARKUP = '<img src=x onerror="window.harmed=1"><script>window.harmed=1</script> &lt;b&gt;';
const RIGHT_TO_LEFT = 'order \u202eLX-100001\u202c of שלום taken';
const CONTROL = 'bell \u0007 null \u0000 escape \u001b[31mred\u001b[0m end';
const LONG = `begin of it ${'0123456789abcdef '.repeat(123_000)}end-of-it`;
const MANY = 1_000_000;

async function strange(root: string): Promise<void> {
  await mkdir(join(root, 'odd'), { recursive: true });
  const line = (second: number, message: string, more = ''): string =>
    `{"time":"2026-11-24T08:00:${String(second).padStart(2, '0')}Z","level":"error","msg":${message}${more}}`;
  const lines = [
    line(1, JSON.stringify(MARKUP)),
    line(2, JSON.stringify(RIGHT_TO_LEFT)),
    line(3, JSON.stringify(CONTROL)),
    line(4, '"half a pair \\ud83d and \\udc00 alone"', ',"half":"x\\ud800y"'),
    line(5, JSON.stringify(LONG)),
    line(6, '"last of all"', ',"Fieldwith<b>":"<i>v</i>"'),
  ];
  await writeFile(join(root, 'odd/odd.jsonl'), lines.join('\n'));
}
/** A million lines of one second each fifty. */
async function many(root: string): Promise<void> {
  await mkdir(join(root, 'desk'), { recursive: true });
  const out = createWriteStream(join(root, 'desk/desk.log'));
  const start = Date.UTC(2026, 10, 20, 6);
  for (let i = 0; i < MANY; i += 10_000) {
    const block = Array.from({ length: 10_000 }, (_, k) => {
      const at = new Date(start + (i + k) * 20).toISOString();
      return `${at.slice(0, 10)} ${at.slice(11, 19)},${at.slice(20, 23)} INFO  desk - step ${(i + k) % 977} done, rows=${((i + k) * 7919) % 100_003}\n`;
    });
    if (!out.write(block.join(''))) await once(out, 'drain');
  }
  out.end();
  await finished(out);
}

const PARCEL = {
  name: 'parcel',
  label: 'parcel',
  role: 'business',
  patterns: ['\\bPX-\\d{6}\\b'],
  fields: [],
  normal: { case: 'keep', separators: 'keep', leadingZeros: 'keep', phone: false },
  scope: 'global',
  leaseMs: null,
};
/** One parcel of five thousand records, through eight components time and again. */
async function long(root: string): Promise<void> {
  const start = Date.UTC(2026, 10, 21, 6);
  for (let component = 0; component < 8; component++) {
    const lines = Array.from({ length: 625 }, (_, i) => `${new Date(start + (i * 8 + component) * 40).toISOString()} INFO station-${component} - PX-000001 at stop ${i}`); // prettier-ignore
    await mkdir(join(root, `station-${component}`), { recursive: true });
    await writeFile(join(root, `station-${component}/log.txt`), lines.join('\n'));
  }
}

beforeAll(async () => {
  system = await startSystem(join(ROOT, 'packages/web/dist'));
  browser = await openBrowser();
  page = new Page(browser.driver, system.url);
  const root = join(system.folder, 'in');
  await strange(root);
  await many(root);
  await system.bring(await filesBelow([root]));
}, 180_000);
afterAll(async () => {
  await browser?.close();
  await system?.stop();
});

const count = (selector: string): Promise<number> => page.driver.executeScript('return document.querySelectorAll(arguments[0]).length', selector);

describe('strange content', () => {
  const line = (words: string): By => By.xpath(`//*[@data-lines]//*[@role="option"][contains(., "${words}")]//*[contains(@class, "message")]`);

  test('markup, writing from the right, control characters and half characters stand in their lines as text', async () => {
    await page.open('/find?q=where+level+%3D+error&w=all&order=oldest');
    await page.until('all six lines', async () => (await count('[data-lines] [role=option]')) === 6);
    const text = await page.driver.executeScript<string>("return document.querySelector('[data-lines]').textContent");
    expect(text).toContain(MARKUP);
    expect(text).toContain('שלום');
    expect(text).toContain('half a pair');
    expect(await page.driver.executeScript('return window.harmed ?? null')).toBeNull();
    expect(await count('[data-lines] img, [data-lines] script')).toBe(0);
    // each keeps its own line, whatever turns the direction of writing in it
    const tops: number[] = await page.driver.executeScript("return [...document.querySelectorAll('.line .message')].map((one) => one.getBoundingClientRect().left)"); // prettier-ignore
    expect(new Set(tops).size).toBe(1);
    expect(await page.violations()).toEqual([]);
  });

  test('a value of half a character is searched for without harm, and a field with markup in its name is a text', async () => {
    await page.click(line('half a pair'));
    await page.until('the record', async () => (await page.text(By.css('[data-testid=record]'))).includes('half'));
    await page.press('j', 'j');
    await page.until('the last record', async () => (await page.text(By.css('[data-testid=record]'))).includes('Fieldwith<b>'));
    expect(await page.text(By.css('[data-testid=record]'))).toContain('<i>v</i>');
  });

  test('a message of two megabytes is read to its end, in the list, the record and the file', async () => {
    await page.open(`/find?q=${encodeURIComponent("'begin of it'")}&w=all`);
    await page.until('its line', async () => (await count('[data-lines] .line')) === 1);
    await page.press('j', 'o');
    await page.until('what is left out is said', async () =>
      (await page.text(By.css('[data-testid=record]'))).includes('The beginning of the message'),
    );
    await page.click(page.button('Show all of it'));
    const shown = (what: string): Promise<boolean> =>
      page.driver.executeScript("return document.querySelector('main').textContent.includes(arguments[0])", what);
    await page.until('its end in the record', () => shown('end-of-it'));
    await page.click(page.button('the original file here'));
    await page.until('its line in the file', () => shown('begin of it'));
  });
});

describe('a million records', () => {
  test('scrolls; the frames of each second are told', async () => {
    await page.open('/find?q=where+component+%3D+desk&w=all&order=oldest');
    await page.until('lines', async () => (await count('[data-lines] .line')) > 20);
    await page.until('all counted', async () => (await page.text(By.css('.terms'))).includes('1,000,000'));
    const told: string[] = [];
    for (const step of [21, 120, 600]) {
      const [frames, seconds, lines] = (await page.driver.executeAsyncScript(
        `const [step, done] = arguments;
         const box = document.querySelector('[data-lines]');
         const begin = performance.now();
         let frames = 0;
         const next = (now) => {
           frames++;
           box.scrollTop += step;
           if (now - begin < 3000) requestAnimationFrame(next);
           else done([frames, (now - begin) / 1000, Math.round(box.scrollTop / 21)]);
         };
         requestAnimationFrame(next);`,
        step,
      )) as [number, number, number];
      told.push(`${(frames / seconds).toFixed(1)} frames/s at ${step} pixels a frame, to line ${lines}`);
    }
    console.log(`A list of a million records scrolls with ${told.join('; ')}.`);
    const reached = told.map((one) => Number(/line (\d+)$/.exec(one)![1]));
    expect(reached[0]).toBeGreaterThan(0);
    expect(reached[2]).toBeGreaterThan(reached[0]!);
    await page.until('lines, not places of lines', async () => (await count('[data-lines] .line')) > 20);
  }, 60_000);

  test('sorted by a column, and by time again', async () => {
    await page.open('/find?q=where+component+%3D+desk&w=2026-11-20T06:00:00.000Z~2026-11-20T06:20:00.000Z&cols=rows:90,message');
    await page.click(By.css('[aria-label="Column rows"]'));
    const rows = (): Promise<number[]> =>
      page.driver.executeScript(
        "return [...document.querySelectorAll('.line')].sort((a, b) => a.getBoundingClientRect().top - b.getBoundingClientRect().top).map((one) => Number(one.querySelector('.cell').textContent))",
      );
    const falls = (list: number[]): boolean => list.length > 20 && list.every((one, i) => i === 0 || list[i - 1]! >= one);
    await page.until(
      'the whole window sorted',
      async () => (await page.text(By.css('.terms'))).includes('by rows, most first') && falls(await rows()),
    );
    await page.until('it ends', async () => !(await page.text(By.css('.terms'))).includes('searching'));
    expect((await rows())[0]).toBeGreaterThan(99_900);
    await page.click(By.css('[aria-label^="Column rows"]'));
    await page.until('the least first', async () => (await rows())[0]! < 100 && falls((await rows()).reverse()));
    await page.driver.navigate().refresh();
    await page.until('the same again', async () => (await rows()).length > 20 && (await rows())[0]! < 100);
    await page.click(By.css('[aria-label^="Column rows"]'));
    await page.until('by time', async () => (await page.text(By.css('.terms'))).includes('latest') && !falls(await rows()));
  });

  test('a set of columns keeps what the list is sorted by, and a field of a hundred thousand values is told as such', async () => {
    await page.open('/find?w=2026-11-20T06:00:00.000Z~2026-11-20T06:40:00.000Z&cols=rows:90,message&view=wide&rank=rows.up');
    await page.click(By.xpath('//button[.//span[text()="view"]]'));
    await (await page.see(By.css('[aria-label="Name for this column set"]'))).sendKeys('Fewest rows', Key.ENTER);
    await page.until('it in the list', async () => (await page.text(By.css('.drop-panel:popover-open'))).includes('Fewest rows'));
    await page.open('/find?w=2026-11-20T06:00:00.000Z~2026-11-20T06:40:00.000Z');
    await page.click(By.xpath('//button[.//span[text()="view"]]'));
    await page.click(By.xpath('//button[normalize-space(.)="Fewest rows"]'));
    await page.until('the set', async () => /cols=rows:90,message.*rank=rows\.up|rank=rows\.up.*cols=rows:90,message/.test(await page.address()));
    expect(await page.address()).toContain('view=wide');
    await page.press(Key.ESCAPE);
    await page.until('the values of rows', async () => /rows[\s\S]*[\d,]{5,} values/.test(await page.text(By.css('.values'))));
    await page.open('/find?q=where+component+%3D+desk&w=all&show=rows');
    await page.until('groups, cut and said', async () => /the latest 20,000/.test(await page.text(By.css('.groups'))));
  }, 60_000);

  test('a value of a line is taken in hand, by click and by key', async () => {
    await page.open('/find?w=all&order=oldest&cols=rows:90,component:110,message');
    await page.click(By.xpath('//*[@data-lines]//*[contains(@class, "cell")]//*[text()="desk"]'));
    await page.until('its menu', async () => (await page.text(By.css('.value-menu:popover-open'))).includes('Leave it out'));
    await page.press(Key.ESCAPE);
    await page.press('j', 'h');
    await page.until('the menu at the first column', async () => (await page.text(By.css('.value-menu:popover-open'))).startsWith('rows'));
    await page.press(Key.ARROW_RIGHT);
    await page.until('at the next', async () => (await page.text(By.css('.value-menu:popover-open'))).startsWith('component'));
    await page.press(Key.ARROW_DOWN);
    expect(await page.violations()).toEqual([]);
    await page.press(Key.ENTER);
    await page.until('left out', async () => (await page.address()).includes('not+component+=+desk'));
    await page.until('the others', async () => (await count('[data-lines] .line')) === 6);
  });
});

describe('five thousand records', () => {
  test('a weave of five thousand records scrolls; the frames of each second are told', async () => {
    const folder = join(system.folder, 'parcels');
    await long(folder);
    await fetch(`${system.url}/api/identifier-kinds`, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(PARCEL) }); // prettier-ignore
    await system.bring(await filesBelow([folder]));
    const told: string[] = [];
    for (const view of ['', '?view=time&zoom=60']) {
      await page.open(`/strands/parcel:PX-000001${view}`);
      await page.until('all its records', async () => (await page.text(By.css('.facts'))).includes('5,000 records') && !(await page.text(By.css('.tools'))).includes('loading')); // prettier-ignore
      await page.until('lines', async () => (await count('.weave [role=option]')) > 20);
      const [frames, seconds, top] = (await page.driver.executeAsyncScript(
        `const done = arguments[0];
         const box = document.querySelector('.weave .scroller');
         const begin = performance.now();
         let frames = 0;
         const next = (now) => {
           frames++;
           box.scrollTop += 60;
           if (now - begin < 3000) requestAnimationFrame(next);
           else done([frames, (now - begin) / 1000, box.scrollTop]);
         };
         requestAnimationFrame(next);`,
      )) as [number, number, number];
      expect(top).toBeGreaterThan(1000);
      told.push(`${(frames / seconds).toFixed(1)} frames/s ${view === '' ? 'by record' : 'in proportion to time'}`);
    }
    console.log(`A weave of 5,000 records scrolls with ${told.join(', ')}.`);
  }, 120_000);
});
