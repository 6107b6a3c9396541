import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { parse } from 'csv-parse/sync'
import { By, Key } from 'selenium-webdriver'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { type OwnerOfDemo, ownerOfDemo } from './stage.ts'
import { chord, rowOf, rowsShown, standOn, until } from './table.ts'
import type { Visitor } from './visitor.ts'

/** A board is put in order by hand and by keys, files stand in its cells, and tables go in and out. */
const at = '/at/marram-coast-survey'
const loans = `${at}/content/node-boats-kit-loans`
let demo: OwnerOfDemo
let joss: Visitor
let disk: string

beforeAll(async () => {
  demo = await ownerOfDemo()
  joss = await demo.welcome('joss@marram.example')
  disk = mkdtempSync(join(tmpdir(), 'noskel-board-'))
  await joss.open(loans)
  await joss.sees('Dinghy')
})
afterAll(async () => {
  await demo.leave()
  rmSync(disk, { recursive: true, force: true })
})

const inFront = async (names: readonly string[]) =>
  until(joss, async () => (await rowsShown(joss)).join().startsWith(names.join()), names.join(', '))

const heads = (visitor: Visitor) =>
  visitor.driver.executeScript<string[]>(
    `return [...document.querySelectorAll('[role=columnheader]')].map(each => each.innerText.split(/ ·|,/)[0].trim())`,
  )

test('rows are put elsewhere by dragging and by keys, and that is undone as any change', async () => {
  const lines = await joss.driver.findElements(By.css('[role=row][aria-rowindex]'))
  const grips = await joss.driver.findElements(By.css('.row-grip'))
  const [, grip] = grips
  const goal = lines[5]
  if (grip === undefined || goal === undefined) throw new Error('there are no rows')
  expect((await rowsShown(joss)).slice(1, 5)).toEqual([
    'Spotting scope 1',
    'Spotting scope 3',
    'Binoculars, pair 7',
    'Binoculars, pair 8',
  ])
  const actions = () => joss.driver.actions()
  await actions().move({ origin: grip }).press().move({ origin: goal, x: 0, y: 9 }).release().perform()
  await inFront([
    'Tripod',
    'Spotting scope 3',
    'Binoculars, pair 7',
    'Binoculars, pair 8',
    'Spotting scope 1',
  ])
  // Escape lets go of it where it was.
  const [first] = await joss.driver.findElements(By.css('.row-grip'))
  if (first === undefined) throw new Error('there are no rows')
  await actions()
    .move({ origin: first })
    .press()
    .move({ origin: goal })
    .sendKeys(Key.ESCAPE)
    .release()
    .perform()
  await standOn(joss, 'Spotting scope 1', 'No.')
  await chord(joss, Key.ALT, Key.ARROW_UP)
  await inFront([
    'Tripod',
    'Spotting scope 3',
    'Binoculars, pair 7',
    'Spotting scope 1',
    'Binoculars, pair 8',
  ])
  // Through the head of a section into the one before.
  await standOn(joss, 'Dinghy', 'No.')
  await chord(joss, Key.ALT, Key.ARROW_UP)
  await until(
    joss,
    async () => (await joss.reads()).includes('Optics\n5 rows'),
    'the dinghy among the optics',
  )
  await joss.follow('Show or undo it')
  await joss.press('Undo …')
  await joss.press('Undo')
  await joss.open(loans)
  await until(
    joss,
    async () => (await joss.reads()).includes('Optics\n4 rows'),
    'the dinghy back on the water',
  )
})

test('rows that are chosen go to the bin together, with what that does', async () => {
  await joss.open(loans)
  await joss.sees('Dinghy')
  await standOn(joss, 'Dry suit, M', 'No.')
  await joss.driver.actions().keyDown(Key.SHIFT).sendKeys(Key.ARROW_DOWN).keyUp(Key.SHIFT).perform()
  await chord(joss, Key.CONTROL, Key.DELETE)
  await joss.sees('People who can remove them can restore them for 30 days.')
  await joss.driver.wait(
    async () => /Move 2 rows to bin, \d+ people lose access/.test(await joss.reads()),
    10_000,
    'what it does',
  )
  await joss.pressRow('Move 2 rows to bin')
  await joss.sees('2 rows are now in the bin.')
  await until(joss, async () => !(await rowsShown(joss)).includes('Dry suit, M'), 'the rows in the bin')
})

test('columns are put in order, made wider and hidden for oneself; and in an order for all', async () => {
  await joss.open(loans)
  await joss.sees('Dinghy')
  const before = await heads(joss)
  expect(before.slice(1, 4)).toEqual(['No.', 'State', 'Who'])
  const [, , state, who] = await joss.driver.findElements(By.css('[role=columnheader]'))
  if (state === undefined || who === undefined) throw new Error('there are no columns')
  await joss.driver
    .actions()
    .move({ origin: state })
    .press()
    .move({ origin: who, x: 60, y: 0 })
    .release()
    .perform()
  await until(
    joss,
    async () => (await heads(joss)).slice(1, 4).join() === 'No.,Who,State',
    'the states behind the people',
  )
  await standOn(joss, 'Dinghy', 'State')
  await chord(joss, Key.ALT, Key.ARROW_RIGHT)
  await until(joss, async () => (await heads(joss))[4] === 'State', 'one further to the right')
  const width = () =>
    joss.driver.executeScript<number>(
      `return document.querySelectorAll('[role=columnheader]')[4].offsetWidth`,
    )
  const usual = await width()
  await joss.driver
    .actions()
    .keyDown(Key.ALT)
    .keyDown(Key.SHIFT)
    .sendKeys(Key.ARROW_RIGHT)
    .keyUp(Key.SHIFT)
    .keyUp(Key.ALT)
    .perform()
  await until(joss, async () => (await width()) > usual, 'a wider column')
  const other = await demo.welcome('davit@marram.example')
  await other.open(loans)
  await other.sees('Dinghy')
  expect(await heads(other)).toEqual(before)
  await joss.press('No.')
  await joss.press('Keep this order of columns for all')
  await joss.sees('The columns stand in this order for all.')
  await until(
    other,
    async () => (await heads(other)).join() === (await heads(joss)).join(),
    'the order for all',
  )
  expect(await joss.barriers()).toEqual([])
})

test('files are uploaded into a cell, and stand there when they have come', async () => {
  await joss.open(loans)
  await joss.sees('Dinghy')
  await joss.press('Board')
  await joss.press('New column …')
  await joss.fill('Name of the column', 'Papers')
  await joss.choose('Kind', 'file')
  await joss.press('Create column')
  await joss.sees('The column Papers is created.')
  writeFileSync(join(disk, 'receipt.txt'), 'Paid in full')
  await standOn(joss, 'Dinghy', 'Papers')
  // The dialog of the system is not one that a test can answer.
  await joss.driver.executeScript(
    `const click = HTMLInputElement.prototype.click
     HTMLInputElement.prototype.click = function () { if (this.type !== 'file') click.call(this) }`,
  )
  await joss.driver.actions().sendKeys(Key.ENTER).perform()
  await (await joss.find(`//*[@role='option'][contains(., 'Upload files')]`)).click()
  await joss.upload('Files for Papers', join(disk, 'receipt.txt'))
  await until(
    joss,
    async () => (await rowOf(joss, 'Dinghy')).at(-1) === 'receipt.txt',
    'the file in its cell',
  )
})

/** Five thousand rows as a spreadsheet in Germany writes them, days and decimals; forty of them faulty, one column too many. */
function ledger(): string {
  const lines = ['Name;Section;Back on;Deposit;Weight;Colour of the cover']
  for (let nth = 0; nth < 5000; nth += 1) {
    const day = `${String((nth % 28) + 1).padStart(2, '0')}.${String((nth % 12) + 1).padStart(2, '0')}.2026`
    const deposit = nth % 125 === 7 ? 'free' : `1.${String(100 + (nth % 900))},50`
    const weight = ((nth % 40) / 4).toFixed(2).replace('.', ',')
    lines.push(`Crate ${nth + 1};In the field;${day};${deposit};${weight};`)
  }
  return `\ufeff${lines.join('\r\n')}`
}

const counts = (visitor: Visitor, words: string) =>
  visitor.driver.wait(async () => (await visitor.reads()).includes(words), 90_000, words)

test('a table of five thousand rows is judged, mended and brought in; the same file again changes nothing', async () => {
  await joss.open(loans)
  await joss.sees('Dinghy')
  writeFileSync(join(disk, 'crates.csv'), ledger())
  await joss.press('Board')
  await joss.press('Import CSV …')
  await joss.upload('CSV file', join(disk, 'crates.csv'))
  await joss.choose('Column Colour of the cover', 'not imported')
  await counts(joss, '4,960 new, 0 changed, 0 unchanged, 40 with errors')
  expect(await joss.barriers()).toEqual([])
  await joss.tick('only rows with errors')
  await joss.fill('Deposit, row 9', '12,5')
  await counts(joss, '4,961 new, 0 changed, 0 unchanged, 39 with errors')
  await joss.press('Import 4,961 rows')
  await counts(joss, '4,961 rows imported')
  await joss.upload('CSV file', join(disk, 'crates.csv'))
  await joss.choose('Column Colour of the cover', 'not imported')
  await counts(joss, '0 new, 0 changed, 4,960 unchanged, 40 with errors')
  await joss.press('To the board')
  await joss.sees('4,974 rows')
})

test('what is done with a block takes all its rows, also those that are nowhere near the screen', async () => {
  const weights = () =>
    joss.driver.executeAsyncScript<(number | undefined)[]>(
      `const [done] = arguments
       const at = '/api/at/marram-coast-survey/nodes/node-boats-kit-loans/board'
       Promise.all([at, at + '/rows?where=name~contains~Crate&count=500'].map(each => fetch(each).then(answer => answer.json())))
         .then(([{ columns }, { rows }]) => {
           const { id } = columns.find(({ name }) => name === 'Weight')
           done(rows.map(({ cells }) => cells[id]))
         })`,
    )
  const before = await weights()
  await joss.open(`${loans}?where=name~contains~Crate`)
  await joss.sees('4,961 rows')
  await standOn(joss, 'Crate 1', 'Weight')
  await joss.driver.actions().sendKeys(Key.ARROW_DOWN).perform()
  const down = joss.driver.actions().keyDown(Key.SHIFT)
  for (let times = 0; times < 15; times += 1) down.sendKeys(Key.PAGE_DOWN)
  await down.keyUp(Key.SHIFT).perform()
  await chord(joss, Key.CONTROL, 'd')
  const filled = before.map((weight, nth) => (nth >= 1 && nth <= 301 ? before[1] : weight))
  await until(joss, async () => (await weights()).join() === filled.join(), 'three hundred rows filled')
  await chord(joss, Key.CONTROL, 'z')
  await until(joss, async () => (await weights()).join() === before.join(), 'all as it was')
})

test('of lanes with very many rows each shows some of its own, and more of them where one wants', async () => {
  await joss.open(`${loans}?as=lanes&by=section`)
  await joss.sees(' more …')
  const cards = () =>
    joss.driver.executeScript<number[]>(
      `return [...document.querySelectorAll('[data-lane]')].map(each => each.querySelectorAll('li').length)`,
    )
  const before = await cards()
  expect(before.filter(each => each > 0).length).toBeGreaterThan(1)
  expect(Math.max(...before)).toBe(50)
  await joss.pressRow(' more …')
  await until(joss, async () => Math.max(...(await cards())) === 100, 'fifty more')
})

test('what is shown goes out as it came in', async () => {
  const csv = await joss.driver.executeAsyncScript<string>(
    `const [done] = arguments
     fetch('/api/at/marram-coast-survey/nodes/node-boats-kit-loans/board.csv?where=name~contains~Crate').then(each => each.text()).then(done)`,
  )
  const out = parse<Record<string, string>>(csv, { columns: true, bom: true })
  const came = parse<Record<string, string>>(readFileSync(join(disk, 'crates.csv')), {
    columns: true,
    bom: true,
    delimiter: ';',
  })
  const number = (text = '') => Number(text.replace('.', '').replace(',', '.'))
  const day = (text = '') => text.split('.').toReversed().join('-')
  expect(out).toHaveLength(4961)
  const outBy = new Map(out.map(each => [each['Name'], each]))
  for (const row of came.filter(each => each['Deposit'] !== 'free'))
    expect(outBy.get(row['Name'])).toMatchObject({
      Section: row['Section'],
      'Back on': day(row['Back on']),
      Deposit: number(row['Deposit']).toFixed(2),
      Weight: number(row['Weight']).toFixed(2),
    })
})
