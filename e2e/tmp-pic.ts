import { openBrowser } from './support/browser.ts';
const [url, theme, size, ...paths] = process.argv.slice(2);
const b = await openBrowser();
await b.theme(theme as 'light');
const [w, h] = size!.split('x').map(Number);
await b.driver.manage().window().setRect({ width: w!, height: h! });
let i = 0;
for (const p of paths) { await b.driver.get(url + p); await new Promise((r) => setTimeout(r, 2500)); await b.picture(`/tmp/pic${i++}.png`); }
await b.close();
