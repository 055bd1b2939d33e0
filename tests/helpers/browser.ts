import { writeFileSync } from 'node:fs';
import { Builder, type WebDriver } from 'selenium-webdriver';
import { Options, ServiceBuilder } from 'selenium-webdriver/chrome.js';

const FLAGS = [
  '--headless=new',
  '--no-sandbox',
  '--disable-dev-shm-usage',
  '--disable-gpu',
  '--window-size=1280,800',
  '--force-device-scale-factor=1',
  '--hide-scrollbars',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
  '--disable-default-apps',
  '--no-first-run',
  '--no-default-browser-check',
  '--no-pings',
  '--disable-features=OptimizationHints,MediaRouter,Translate,AutofillServerCommunication',
  '--host-resolver-rules=MAP * ~NOTFOUND, EXCLUDE localhost, EXCLUDE 127.0.0.1',
];

/** A headless Chromium whose viewport is 1280 × 800 CSS px. */
export async function startBrowser(width = 1280, height = 800): Promise<WebDriver> {
  const options = new Options();
  options.setChromeBinaryPath('/usr/bin/chromium');
  options.addArguments(...FLAGS);
  const browser = await new Builder()
    .forBrowser('chrome')
    .setChromeOptions(options)
    .setChromeService(new ServiceBuilder('/usr/bin/chromedriver'))
    .build();
  const inner = (await browser.executeScript(
    'return [outerWidth - innerWidth, outerHeight - innerHeight]',
  )) as [number, number];
  await browser
    .manage()
    .window()
    .setRect({ x: 0, y: 0, width: width + inner[0], height: height + inner[1] });
  return browser;
}

/** Saves what the browser shows as a PNG. */
export async function picture(browser: WebDriver, file: string): Promise<void> {
  writeFileSync(file, Buffer.from(await browser.takeScreenshot(), 'base64'));
}
