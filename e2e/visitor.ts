import { createRequire } from 'node:module'
import { readFileSync } from 'node:fs'
import { By, Key, until, type WebDriver, type WebElement, error } from 'selenium-webdriver'
import { type Browser, openBrowser } from './browser.ts'

const patience = 30_000
const axeSource = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8')

/** Somebody at a browser of their own, who finds things by the names that people read and hear. */
export class Visitor {
  readonly driver: WebDriver
  readonly resize: Browser['resize']
  readonly forgetFiles: Browser['forgetFiles']
  readonly close: () => Promise<void>
  private readonly address: string

  private constructor(browser: Browser, address: string) {
    this.driver = browser.driver
    this.resize = browser.resize
    this.forgetFiles = browser.forgetFiles
    this.close = browser.close
    this.address = address
  }

  static async arrive(address: string): Promise<Visitor> {
    return new Visitor(await openBrowser({ width: 1280, height: 800 }), address)
  }

  /** A path of the app, or a whole address out of a mail. */
  async open(path: string): Promise<void> {
    await this.driver.get(path.startsWith('http') ? path : `${this.address}${path}`)
  }

  async signIn(mail: string, password: string): Promise<void> {
    await this.open('/sign-in')
    await this.fill('Mail address', mail)
    await this.fill('Password', password)
    await this.press('Sign in')
    await this.driver.wait(until.urlContains('/at/'), patience)
  }

  /** Signs in without the screen for it, which costs as much as a short journey. */
  async enter(mail: string, password: string): Promise<void> {
    await this.open('/mark.svg')
    const status = await this.driver.executeAsyncScript<number>(
      `const [mail, password, done] = arguments
       fetch('/api/session', {
         method: 'POST',
         headers: { 'content-type': 'application/json' },
         body: JSON.stringify({ mail, password }),
       }).then(answer => done(answer.status))`,
      mail,
      password,
    )
    if (status >= 300) throw new Error(`${mail} is not let in: ${status}`)
  }

  /** A field by its label. */
  async field(label: string): Promise<WebElement> {
    const name = quoted(label)
    return this.find(
      `//*[self::input or self::textarea or self::select][@aria-label=${name} or @id=//label[normalize-space()=${name}]/@for or ancestor::label[.//*[normalize-space()=${name}]] or ancestor::label[normalize-space()=${name}]]`,
    )
  }

  async fill(label: string, text: string): Promise<void> {
    const write = async () => {
      const field = await this.field(label)
      await field.sendKeys(Key.chord(Key.CONTROL, 'a'), Key.BACK_SPACE, text)
    }
    // A field may be drawn anew between its being found and its being written in.
    await write().catch(async (fault: unknown) => {
      if (!isGone(fault)) throw fault
      await write()
    })
  }

  /** A long text at once, as from the clipboard. */
  async paste(label: string, text: string): Promise<void> {
    await this.put('HTMLTextAreaElement', await this.field(label), text)
  }

  /** A file, chosen in a field for files. */
  async upload(label: string, path: string): Promise<void> {
    await (await this.field(label)).sendKeys(path)
  }

  /** A day, in the plain form that every reader can write. */
  async fillDay(label: string, day: string): Promise<void> {
    await this.fill(label, day)
  }

  async choose(label: string, option: string): Promise<void> {
    const field = await this.field(label)
    if ((await field.getTagName()) === 'input') return this.pick(label, option)
    await field.findElement(By.xpath(`.//option[starts-with(normalize-space(), ${quoted(option)})]`)).click()
  }

  async tick(label: string): Promise<void> {
    const field = await this.field(label)
    const isRadio = (await field.getAttribute('type')) === 'radio'
    await field.click()
    // A form may move under the pointer when its effect is drawn; what is chosen twice is only chosen.
    const isChosen = () => field.isSelected().catch(isGone)
    if (isRadio) await this.driver.wait(isChosen, 2000).catch(() => field.click())
  }

  /** Finds somebody or some team in a field that searches. */
  async pick(label: string, name: string): Promise<void> {
    await this.fill(label, name)
    await this.find(`//*[@role='option'][contains(normalize-space(), ${quoted(name)})]`)
    await (await this.field(label)).sendKeys(Key.ENTER)
  }

  /** A button, or what opens and shuts something, by all that it says. */
  async press(button: string): Promise<void> {
    const name = quoted(button)
    await this.act(
      `//*[self::button or self::summary or self::input[@type='checkbox'] or starts-with(@role, 'menuitem')][normalize-space()=${name} or @aria-label=${name}]`,
    )
  }

  /** Whether a button, by all that it says, can be pressed. */
  async canPress(button: string): Promise<boolean> {
    return (await this.find(`//button[normalize-space()=${quoted(button)}]`)).isEnabled()
  }

  /** Something to do with the open place: in the line of its name, or behind *More*. */
  async pressAct(act: string): Promise<void> {
    const shown = await this.driver.findElements(By.xpath(`//button[normalize-space()=${quoted(act)}]`))
    if (shown.length === 0) await this.press('More')
    await this.press(act)
  }

  /** Something out of the menu under one's own name in the band. */
  async pressOwn(item: string): Promise<void> {
    await this.act(`//button[contains(., ', account and theme')]`)
    await this.press(item)
  }

  /** A row of a list, by what stands in one of its cells. */
  async pressCell(text: string): Promise<void> {
    await this.act(`//td[normalize-space()=${quoted(text)}]`)
  }

  /** A button by a part of what it says: a row of a list, say. */
  async pressRow(part: string): Promise<void> {
    await this.act(`//button[contains(., ${quoted(part)})]`)
  }

  async follow(link: string): Promise<void> {
    await this.act(`//a[normalize-space()=${quoted(link)}]`)
  }

  /** A link by a part of what it says. */
  async followPart(part: string): Promise<void> {
    await this.act(`//a[contains(., ${quoted(part)})]`)
  }

  async sees(text: string): Promise<void> {
    const script = 'return document.body.innerText.includes(arguments[0])'
    await this.driver.wait(
      () => this.driver.executeScript<boolean>(script, text),
      patience,
      `“${text}” did not appear`,
    )
  }

  /** Waits until a text is not there any more. */
  async misses(text: string): Promise<void> {
    await this.driver.wait(
      async () => !(await this.reads()).includes(text),
      patience,
      `“${text}” is still there`,
    )
  }

  async reads(): Promise<string> {
    return this.driver.executeScript<string>('return document.body.innerText')
  }

  /** How this browser shows things from the next page on, as somebody chose it before. */
  async chooseView(view: object): Promise<void> {
    // Set from a page without the app, which would write its own view back.
    await this.open('/mark.svg')
    await this.driver.executeScript(`localStorage.setItem('noskel view', arguments[0])`, JSON.stringify(view))
  }

  /** What axe finds serious or critical on what is shown now: nothing, if all is well. */
  async barriers(): Promise<string[]> {
    await this.driver.executeScript(axeSource)
    const run = `const done = arguments[0]
      axe.run({ resultTypes: ['violations'], preload: false, runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'] }).then(found => done(found.violations
        .filter(each => each.impact === 'serious' || each.impact === 'critical')
        .map(each => each.id + ': ' + each.nodes.map(node => node.target + ' ' + node.failureSummary).join('; '))))`
    return this.driver.executeAsyncScript<string[]>(run)
  }

  /** Sets what a field holds, so that React hears of it. */
  private async put(kind: string, field: WebElement, value: string): Promise<void> {
    const set = `const set = Object.getOwnPropertyDescriptor(${kind}.prototype, 'value').set
      set.call(arguments[0], arguments[1])
      arguments[0].dispatchEvent(new Event('input', { bubbles: true }))`
    await this.driver.executeScript(set, field, value)
  }

  find(xpath: string): Promise<WebElement> {
    return this.driver.wait(until.elementLocated(By.xpath(xpath)), patience)
  }

  /** Waits for it to be usable. React may replace an element before it is clicked: then it is found again. */
  private async act(xpath: string): Promise<void> {
    await this.driver.wait(
      async () => {
        try {
          const element = await this.driver.findElement(By.xpath(xpath))
          if (!(await element.isEnabled())) return false
          await element.click()
          return true
        } catch {
          return false
        }
      },
      patience,
      `could not click ${xpath}`,
    )
  }
}

/** Drawn anew, as what was clicked may be. */
const isGone = (fault: unknown): boolean => fault instanceof error.StaleElementReferenceError

const quoted = (text: string): string => (text.includes("'") ? `"${text}"` : `'${text}'`)
