import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Builder, logging, type WebDriver } from 'selenium-webdriver';
import { Options, ServiceBuilder } from 'selenium-webdriver/chrome.js';

const FLAGS = [
  '--headless=new',
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
  '--disable-dev-shm-usage',
  '--force-device-scale-factor=1',
  '--window-size=1280,800',
  '--lang=en-GB',
];

export interface Browser {
  driver: WebDriver;
  /** Sets the size of the page, exactly. */
  size(width: number, height: number): Promise<void>;
  theme(name: 'light' | 'dark'): Promise<void>;
  /** Errors that the page wrote to its console since the last call. */
  complaints(): Promise<string[]>;
  picture(file: string): Promise<void>;
  close(): Promise<void>;
}

/** Debian's Chromium, headless, with an empty profile of its own. */
export async function openBrowser(zone = 'Europe/Berlin'): Promise<Browser> {
  const profile = await mkdtemp(join(tmpdir(), 'fadenweg-browser-'));
  const options = new Options();
  options.setChromeBinaryPath('/usr/bin/chromium');
  options.addArguments(...FLAGS, `--user-data-dir=${profile}`);
  const preferences = new logging.Preferences();
  preferences.setLevel(logging.Type.BROWSER, logging.Level.SEVERE);
  options.setLoggingPrefs(preferences);
  const driver = await new Builder()
    .forBrowser('chrome')
    .setChromeOptions(options)
    .setChromeService(new ServiceBuilder('/usr/bin/chromedriver'))
    .build();
  const command = (name: string, values: object): Promise<unknown> =>
    (driver as unknown as { sendDevToolsCommand(name: string, values: object): Promise<unknown> }).sendDevToolsCommand(name, values);
  const size = async (width: number, height: number): Promise<void> => {
    await command('Emulation.setDeviceMetricsOverride', { width, height, deviceScaleFactor: 1, mobile: false });
  };
  await size(1280, 800);
  await command('Emulation.setTimezoneOverride', { timezoneId: zone });
  return {
    driver,
    size,
    theme: async (name) => {
      await command('Emulation.setEmulatedMedia', { features: [{ name: 'prefers-color-scheme', value: name }] });
    },
    complaints: async () =>
      (await driver.manage().logs().get(logging.Type.BROWSER)).map((entry) => entry.message).filter((message) => !/favicon/.test(message)),
    picture: async (file) => {
      await driver.executeAsyncScript(
        'const done = arguments[arguments.length - 1]; document.fonts.ready.then(() => requestAnimationFrame(() => requestAnimationFrame(done)));',
      );
      await writeFile(file, await driver.takeScreenshot(), 'base64');
    },
    close: async () => {
      await driver.quit();
      await rm(profile, { recursive: true, force: true });
    },
  };
}
