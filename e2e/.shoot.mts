import { openBrowser } from '/work/main/e2e/support/browser.ts';
const b = await openBrowser();
for (const arg of process.argv.slice(2)) { const [name, url, w='1280', h='800', theme='light', js=''] = arg.split('|');
 await b.theme(theme as 'light'); await b.size(Number(w), Number(h)); await b.driver.get(url!); await new Promise(r=>setTimeout(r,1500)); if (js) { await b.driver.executeScript(js); await new Promise(r=>setTimeout(r,900)); } await b.picture(`/tmp/shots/${name}.png`); console.log(name, await b.complaints()); }
await b.close();
