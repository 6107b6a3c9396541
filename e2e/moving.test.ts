import { Key, type WebElement } from 'selenium-webdriver'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { type OwnerOfDemo, ownerOfDemo } from './stage.ts'
import { chord, until } from './table.ts'
import type { Visitor } from './visitor.ts'

/** Places are picked, dragged and cut out; what that does to whom is seen before it is done. */
const at = '/at/marram-coast-survey'
let demo: OwnerOfDemo
let owner: Visitor

beforeAll(async () => {
  demo = await ownerOfDemo()
  owner = demo.owner
})
afterAll(() => demo.leave())

const listed = (name: string): Promise<WebElement> =>
  owner.find(`//main//tr[@data-place][.//a[starts-with(normalize-space(), '${name}')]]`)
const inTree = (name: string): Promise<WebElement> =>
  owner.find(`//nav//*[@data-place][.//a[normalize-space()='${name}']]`)

const namesListed = () =>
  owner.driver.executeScript<string[]>(
    `return [...document.querySelectorAll('main tr[data-place] a')].map(each => each.innerText.split('\\n')[0].trim())`,
  )

test('several places of a folder are picked, and archived with one effect; all of them come as one ZIP', async () => {
  await owner.open(`${at}/content/node-sites`)
  await listed('North Spit')
  const [pick] = await owner.driver.findElements({
    xpath: `//main//button[normalize-space()='Select several places']`,
  })
  await pick?.click()
  await owner.tick('Select Far Dunes')
  await owner.tick('Select Gull Sands')
  const picked = `//section[@aria-label='Selected places']`
  await owner.find(`${picked}[contains(., '2 places selected')]`)
  const zip = await (await owner.find(`${picked}//a[contains(., 'ZIP')]`)).getAttribute('href')
  const signature = await owner.driver.executeAsyncScript<string>(
    `const done = arguments[1]
     fetch(arguments[0]).then(each => each.arrayBuffer()).then(bytes => done(new TextDecoder('latin1').decode(bytes.slice(0, 2)) + bytes.byteLength))`,
    zip,
  )
  expect(signature).toMatch(/^PK\d{4,}/)
  await (await owner.find(`${picked}//button[normalize-space()='Archive …']`)).click()
  await owner.sees('Nobody can change them.')
  await owner.find(`${picked}//*[contains(., 'some access on')]`)
  expect(await owner.barriers()).toEqual([])
  await owner.press('Archive 2 places')
  await owner.sees('2 places are archived.')
  await until(
    owner,
    async () => (await (await listed('Far Dunes')).getText()).includes('archived'),
    'archived',
  )
})

test('a place that is dragged onto another shows what the move would do, and goes there only then', async () => {
  const actions = () => owner.driver.actions()
  const place = await listed('Harrow Creek')
  const goal = await inTree('Season Plan')
  await actions().move({ origin: place, x: -150, y: 0 }).press().move({ origin: goal }).release().perform()
  await owner.find(`//*[@role='dialog'][contains(., 'Harrow Creek to Season Plan')]`)
  await owner.sees('gain access')
  expect(await owner.barriers()).toEqual([])
  await owner.press('Cancel')
  await owner.misses('Harrow Creek to Season Plan')
  expect(await namesListed()).toContain('Harrow Creek')
  await actions()
    .move({ origin: await listed('Harrow Creek'), x: -150, y: 0 })
    .press()
    .move({ origin: goal })
    .release()
    .perform()
  await owner.press('Move to Season Plan')
  await owner.sees('Harrow Creek is now in Season Plan.')
  await until(owner, async () => !(await namesListed()).includes('Harrow Creek'), 'gone from the list')
})

test('the same by keys: cut out in the tree, put into what has the focus', async () => {
  const link = await owner.find(`//nav//a[normalize-space()='Season Plan']`)
  await owner.driver.executeScript('arguments[0].focus()', link)
  await owner.driver.actions().sendKeys(Key.ARROW_RIGHT).perform()
  const moved = await owner.find(`//nav//a[normalize-space()='Harrow Creek']`)
  await owner.driver.executeScript('arguments[0].focus()', moved)
  await chord(owner, Key.CONTROL, 'x')
  await owner.sees('Harrow Creek can be moved: go to another place and press Ctrl+V.')
  const goal = await owner.find(`//nav//a[normalize-space()='Sites']`)
  await owner.driver.executeScript('arguments[0].focus()', goal)
  await chord(owner, Key.CONTROL, 'v')
  await owner.press('Move to Sites')
  await owner.sees('Harrow Creek is now in Sites.')
  await until(owner, async () => (await namesListed()).includes('Harrow Creek'), 'in the list again')
  // Where the focus was before it is again.
  expect(await owner.driver.executeScript('return document.activeElement.innerText.trim()')).toBe('Sites')
})

test('a place cannot be put into what lies in it, and is told why', async () => {
  await owner.open(`${at}/content/node-sites-north-spit`)
  await owner.find(`//nav//a[normalize-space()='North Spit']`)
  const inner = await listed('Photos')
  await owner.driver
    .actions()
    .move({ origin: await inTree('North Spit') })
    .press()
    .move({ origin: inner, x: -100, y: 0 })
    .release()
    .perform()
  await owner.find(`//*[@role='dialog']`)
  await owner.sees('cannot be moved into itself')
  await owner.press('Cancel')
})

test('places are put in an order by hand', async () => {
  await owner.open(`${at}/content/node-sites`)
  await listed('North Spit')
  const before = await namesListed()
  await owner.press('Arrange by hand …')
  const rows = await owner.driver.findElements({ css: 'main li[data-row]' })
  const [first] = rows
  const third = rows[2]
  if (first === undefined || third === undefined) throw new Error('there is no list')
  await owner.driver
    .actions()
    .move({ origin: first })
    .press()
    .move({ origin: third, x: 0, y: 8 })
    .release()
    .perform()
  await owner.press('Save order')
  await owner.sees('The order is saved.')
  const [a, b, c, ...rest] = before
  await until(
    owner,
    async () => (await namesListed()).join() === [b, c, a, ...rest].join(),
    'the first one behind two others',
  )
})
