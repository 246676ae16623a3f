import { openBrowser } from './support/browser.ts';
const base = 'http://127.0.0.1:7401';
const browser = await openBrowser();
const [width, height] = (process.env.SIZE ?? '1280x800').split('x').map(Number);
await browser.size(width!, height!);
await browser.theme((process.env.THEME ?? 'light') as never);
const [path, file, script] = process.argv.slice(2);
await browser.driver.get(base + path);
await new Promise((r) => setTimeout(r, Number(process.env.WAIT ?? 3000)));
if (script) {
  await browser.driver.executeScript(script);
  await new Promise((r) => setTimeout(r, 1500));
}
await browser.picture(file!);
await browser.close();
process.exit(0);
