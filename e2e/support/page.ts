import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { By, Key, until, type WebDriver, type WebElement } from 'selenium-webdriver';
import type { Browser } from './browser.ts';

const PATIENCE = 30_000;

/** What tests do on the page, by what a person sees: roles, labels, words. Waits for things, never for a time. */
export class Page {
  constructor(
    readonly driver: WebDriver,
    private readonly url: string,
  ) {}

  async open(path: string): Promise<void> {
    await this.driver.get(this.url + path);
    await this.see(By.css('main'));
  }
  see(what: By): Promise<WebElement> {
    return this.driver.wait(until.elementLocated(what), PATIENCE);
  }
  async text(what: By): Promise<string> {
    return (await this.see(what)).getText();
  }
  /** Waits until a condition of the page holds; tells what it saw last when it never does. */
  async until(words: string, holds: () => Promise<boolean>): Promise<void> {
    let last = 'not yet so';
    const met = async (): Promise<boolean> => {
      try {
        return await holds();
      } catch (error) {
        last = String(error);
        // the page is being drawn anew, or a menu is still opening
        if (/stale element|no such element|not interactable|click intercepted/i.test(last)) return false;
        throw error;
      }
    };
    await this.driver.wait(met, PATIENCE).catch(async (error: Error) => {
      last += ` at ${await this.address()}: ${(await this.text(By.css('main'))).slice(0, 1500)}`;
      throw new Error(`never seen: ${words}; ${last}`, { cause: error });
    });
  }
  /** Gives fields their values as an input method would, whatever order of day and month the browser's language asks for. */
  async fill(what: By, ...values: string[]): Promise<void> {
    await this.see(what);
    const fields = await this.driver.findElements(what);
    for (const [i, value] of values.entries())
      await this.driver.executeScript(
        "arguments[0].focus(); arguments[0].value = arguments[1]; arguments[0].dispatchEvent(new Event('input', { bubbles: true }));",
        fields[i],
        value,
      );
  }
  async press(...keys: string[]): Promise<void> {
    for (const key of keys) await this.driver.actions().sendKeys(key).perform();
  }
  /** Types into the finder and asks. */
  async find(text: string): Promise<void> {
    await this.press('/');
    const field = await this.see(By.css('[role=search] input'));
    await this.until(
      'the finder in focus',
      async () => (await this.driver.switchTo().activeElement().getAttribute('aria-label'))?.startsWith('Find') ?? false,
    );
    await field.sendKeys(Key.chord(Key.CONTROL, 'a'), text, Key.ENTER);
  }
  button(words: string): By {
    return By.xpath(`//*[self::button or self::a][contains(normalize-space(.), "${words}")]`);
  }
  async click(what: By): Promise<void> {
    await this.until(`something to click at ${what.toString()}`, async () => {
      await (await this.driver.findElement(what)).click();
      return true;
    });
  }
  async address(): Promise<string> {
    return decodeURIComponent((await this.driver.getCurrentUrl()).replace(this.url, ''));
  }
  /** Violations of accessibility rules (axe), each with the place where it is; of colours alone where all else is known to be in order. */
  async violations(rules: 'all' | 'colours' = 'all'): Promise<string[]> {
    const axe = await readFile(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');
    await this.driver.executeScript(axe);
    const found = (await this.driver.executeAsyncScript(
      `
      const done = arguments[arguments.length - 1];
      axe.run(document, { runOnly: arguments[0] === 'colours' ? { type: 'rule', values: ['color-contrast', 'link-in-text-block'] } : ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'] }).then((result) => done(result.violations.map((one) => ({ id: one.id, nodes: one.nodes.map((node) => node.target.join(' ') + ' ' + (node.any[0]?.message ?? node.all[0]?.message ?? '')) }))));
    `,
      rules,
    )) as { id: string; nodes: string[] }[];
    return found.map((one) => `${one.id}: ${one.nodes.slice(0, 3).join(' | ')}`);
  }
  /** All rules in the light theme, and those of colours in the dark one, of the page as it stands: the theme changes under it. */
  async violationsInBoth(browser: Pick<Browser, 'theme'>): Promise<string[]> {
    await browser.theme('light');
    const light = await this.violations('all');
    await browser.theme('dark');
    const dark = await this.violations('colours');
    await browser.theme('light');
    return [...light.map((one) => `light ${one}`), ...dark.map((one) => `dark ${one}`)];
  }
}
