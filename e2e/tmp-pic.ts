import { openBrowser } from './support/browser.ts';
const b = await openBrowser();
await b.size(1280, 1060);
await b.driver.get('file:///tmp/time.svg');
await new Promise((r) => setTimeout(r, 1500));
await b.picture('/tmp/time.png');
await b.close();
