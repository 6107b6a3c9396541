import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { Builder, type WebDriver } from 'selenium-webdriver'
import { Options, ServiceBuilder } from 'selenium-webdriver/chrome.js'

export interface Browser {
  readonly driver: WebDriver
  readonly close: () => Promise<void>
}

/** What Chromium's driver can do besides, which the builder's type does not tell. */
interface DevTools {
  sendDevToolsCommand: (command: string, parameters: object) => Promise<void>
}

/** A headless Chromium with an empty profile of its own. Talks to nobody but the server under test. */
export async function openBrowser({ width, height }: { width: number; height: number }): Promise<Browser> {
  const profile = mkdtempSync(join(tmpdir(), 'noskel-browser-'))
  const options = new Options()
  options.setChromeBinaryPath('/usr/bin/chromium')
  options.addArguments(
    '--headless=new',
    '--no-sandbox',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
    '--disable-dev-shm-usage',
    '--hide-scrollbars',
    '--lang=en-GB',
    `--window-size=${width},${height}`,
    `--user-data-dir=${profile}`,
  )
  const driver: WebDriver = await new Builder()
    .forBrowser('chrome')
    .setChromeOptions(options)
    .setChromeService(new ServiceBuilder('/usr/bin/chromedriver'))
    .build()
  // The window counts its frame; the page is what is designed for.
  const metrics = { width, height, deviceScaleFactor: 1, mobile: false }
  const devTools = driver as unknown as DevTools
  await devTools.sendDevToolsCommand('Emulation.setDeviceMetricsOverride', metrics)
  const close = async () => {
    await driver.quit()
    rmSync(profile, { recursive: true, force: true })
  }
  return { driver, close }
}
