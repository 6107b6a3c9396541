import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { Builder, type WebDriver } from 'selenium-webdriver'
import { Options, ServiceBuilder } from 'selenium-webdriver/chrome.js'

export interface Size {
  readonly width: number
  readonly height: number
}

export interface Browser {
  readonly driver: WebDriver
  /** The window counts its frame: this is what the page has. */
  readonly resize: (size: Size) => Promise<void>
  /** From then on nothing is kept: each page fetches its files anew. */
  readonly forgetFiles: () => Promise<void>
  readonly close: () => Promise<void>
}

/** What Chromium's driver can do besides, which the builder's type does not tell. */
interface DevTools {
  sendDevToolsCommand: (command: string, parameters: object) => Promise<void>
}

/** A headless Chromium with an empty profile of its own. Talks to nobody but the server under test. */
export async function openBrowser({ width, height }: Size): Promise<Browser> {
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
  const devTools = driver as unknown as DevTools
  const resize = (size: Size) =>
    devTools.sendDevToolsCommand('Emulation.setDeviceMetricsOverride', {
      ...size,
      deviceScaleFactor: 1,
      mobile: false,
    })
  await resize({ width, height })
  const forgetFiles = async () => {
    await devTools.sendDevToolsCommand('Network.enable', {})
    await devTools.sendDevToolsCommand('Network.setCacheDisabled', { cacheDisabled: true })
  }
  const close = async () => {
    await driver.quit()
    rmSync(profile, { recursive: true, force: true })
  }
  return { driver, resize, forgetFiles, close }
}
