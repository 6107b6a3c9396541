import { Key, Origin } from 'selenium-webdriver'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { type OwnerOfDemo, ownerOfDemo } from './stage.ts'
import { chord, copied, keys, paste, rowOf, rowsShown, standOn, until } from './table.ts'
import type { Visitor } from './visitor.ts'

/** A board made from nothing, worked in by keyboard, looked at in three ways, by two people at once, and by an outsider. */
const at = '/at/marram-coast-survey'
const permits = `${at}/content/node-permits-and-consents-permits`
const loans = `${at}/content/node-boats-kit-loans`
let demo: OwnerOfDemo
let owner: Visitor

beforeAll(async () => {
  demo = await ownerOfDemo()
  owner = demo.owner
})
afterAll(() => demo.leave())

test('from nothing: columns of several kinds, sections, rows by typing and by pasting', async () => {
  await owner.open(`${at}/content/node-season-plan`)
  await owner.choose('Kind', 'board')
  await owner.fill('Name of the new board', 'Kit for the spring')
  await owner.press('Add board')
  await (await owner.find(`//main//a[normalize-space()='Kit for the spring']`)).click()
  await owner.field('New row')
  const column = async (name: string, kind: string) => {
    await owner.press('Board')
    await owner.press('New column …')
    await owner.fill('Name of the column', name)
    await owner.choose('Kind', kind)
    await owner.press('Create column')
    await owner.sees(`The column ${name} is created.`)
  }
  await column('Pieces', 'number')
  await column('Needed by', 'date')
  await column('Packed', 'checkbox')
  await owner.press('Board')
  await owner.press('Sections …')
  for (const section of ['Boats', 'Tents']) {
    await owner.fill('Name of the new section', section)
    await owner.press('Add section')
    await owner.sees(`The section ${section} is created.`)
  }
  await owner.press('Close Sections')
  const field = await owner.field('New row in Boats')
  await field.click()
  for (const name of ['Dinghy', 'Oars', 'Anchor']) await keys(owner, name, Key.ENTER)
  await until(owner, async () => (await rowsShown(owner)).length === 3, 'three rows')
  expect(await rowsShown(owner)).toEqual(['Dinghy', 'Oars', 'Anchor'])
  await standOn(owner, 'Dinghy', 'Pieces')
  await paste(owner, '1\t4 Dec 2026\tyes\n12\t5.12.2026\tno\nthree\t\t\n')
  await owner.sees('Pieces: This is not a number.')
  await owner.press('Paste 5 cells')
  await until(owner, async () => (await rowOf(owner, 'Oars'))[1] === '12', 'what was pasted')
  expect((await rowOf(owner, 'Dinghy')).slice(1)).toEqual(['1', '4 Dec', '✓\nyes'])
  await standOn(owner, 'Anchor', 'Name')
  await paste(owner, 'Anchor, 4 kg\t2\nBuckets\t30\nRope, 20 m\t3\n')
  await owner.press('Paste and create 2 rows')
  await until(owner, async () => (await rowsShown(owner)).includes('Buckets'), 'the new rows')
  expect(await owner.reads()).toMatch(/Σ\s*sum\s*48/)
  // What one made is taken back as what one wrote: it goes to the bin, and comes back.
  await standOn(owner, 'Dinghy', 'Name')
  await chord(owner, Key.CONTROL, 'z')
  await owner.sees('2 rows are in the bin.')
  await until(owner, async () => !(await rowsShown(owner)).includes('Buckets'), 'the rows in the bin')
  await chord(owner, Key.CONTROL, 'y')
  await until(owner, async () => (await rowsShown(owner)).includes('Buckets'), 'the rows back')
  expect(await owner.barriers()).toEqual([])
})

test('by keyboard alone: cells are written, filled down, emptied, and taken back step by step', async () => {
  await standOn(owner, 'Dinghy', 'Pieces')
  await keys(owner, '7', Key.ENTER)
  await until(owner, async () => (await rowOf(owner, 'Dinghy'))[1] === '7', 'seven pieces')
  await keys(owner, '8', Key.TAB)
  await until(owner, async () => (await rowOf(owner, 'Oars'))[1] === '8', 'eight oars')
  await keys(owner, 'tomorrow', Key.ENTER)
  await until(owner, async () => (await rowOf(owner, 'Oars'))[2] !== '5 Dec', 'a day in words')
  await standOn(owner, 'Dinghy', 'Pieces')
  await owner.driver.actions().keyDown(Key.SHIFT).sendKeys(Key.ARROW_DOWN).keyUp(Key.SHIFT).perform()
  expect(await copied(owner)).toBe('7\n8')
  await chord(owner, Key.CONTROL, 'd')
  await until(owner, async () => (await rowOf(owner, 'Oars'))[1] === '7', 'filled down')
  await keys(owner, Key.DELETE)
  await until(owner, async () => (await rowOf(owner, 'Dinghy'))[1] === '', 'emptied')
  await chord(owner, Key.CONTROL, 'z')
  await owner.sees('2 cells undone.')
  await until(owner, async () => (await rowOf(owner, 'Dinghy'))[1] === '7', 'as it was')
  await chord(owner, Key.CONTROL, 'z')
  await until(owner, async () => (await rowOf(owner, 'Oars'))[1] === '8', 'before it was filled down')
  await keys(owner, 'x', Key.ENTER)
  await owner.sees('This is not a number.')
  await keys(owner, Key.ESCAPE)
})

test('over a slow line, too, it is the last step that is taken back first', async () => {
  const line = (delay: number) =>
    owner.driver.executeScript(
      `window.quickFetch ??= window.fetch
       window.fetch = (...asked) => new Promise(go => setTimeout(go, arguments[0])).then(() => quickFetch(...asked))`,
      delay,
    )
  await standOn(owner, 'Anchor', 'Pieces')
  await keys(owner, '4', Key.ENTER)
  await until(owner, async () => (await rowOf(owner, 'Anchor'))[1] === '4', 'four')
  await line(400)
  await standOn(owner, 'Anchor', 'Pieces')
  await keys(owner, '5', Key.ENTER)
  await standOn(owner, 'Dinghy', 'Pieces')
  await keys(owner, '6', Key.ENTER)
  await chord(owner, Key.CONTROL, 'z')
  await until(owner, async () => (await rowOf(owner, 'Dinghy'))[1] === '7', 'the last one taken back')
  expect((await rowOf(owner, 'Anchor'))[1]).toBe('5')
  await chord(owner, Key.CONTROL, 'z')
  await until(owner, async () => (await rowOf(owner, 'Anchor'))[1] === '4', 'then the one before')
  await line(0)
})

test('a view’s whole state stands in its address; it is saved for oneself and for all', async () => {
  await owner.open(permits)
  await owner.sees('Gate at North Spit')
  await owner.press('Open, soonest first')
  await until(owner, async () => (await rowsShown(owner)).length === 10, 'ten open permits')
  expect((await rowsShown(owner))[0]).toBe('Track to Harrow Creek')
  await owner.press('add a condition')
  await owner.choose('Column', 'Who')
  await owner.choose('Condition', 'is me')
  await owner.press('Add')
  await until(owner, async () => (await rowsShown(owner)).length === 2, 'two of one’s own')
  const address = await owner.driver.getCurrentUrl()
  await owner.press('Save as a view …')
  await owner.fill('Name of the view', 'Mine, open')
  await owner.press('Save view')
  await owner.sees('Mine, open')
  const gesa = await demo.welcome('gesa@marram.example')
  await gesa.open(address)
  await gesa.sees('0 of 14 rows')
  expect(await gesa.reads()).not.toContain('Mine, open')
  await owner.press('Board')
  await owner.press('Rename the view Mine, open …')
  await owner.fill('Name of the view', 'My open ones')
  await owner.press('Rename view')
  await owner.misses('Mine, open')
  await owner.choose('grouped by', 'State')
  await owner.press('Board')
  await owner.press('Save the view My open ones as shown')
  await owner.sees('The view My open ones is saved.')
  await owner.press('All')
  await owner.press('My open ones')
  await owner.sees('2 of 14 rows')
  expect(await owner.driver.getCurrentUrl()).toContain('group=')
})

test('of two people in one cell the second is told, and both values are shown', async () => {
  const gesa = await demo.welcome('gesa@marram.example')
  await owner.open(permits)
  await owner.sees('Gate at North Spit')
  await gesa.open(permits)
  await gesa.sees('Gate at North Spit')
  await standOn(owner, 'Landing, Gull Sands', 'Contact')
  await keys(owner, 'Harbour master')
  await until(
    gesa,
    async () => (await rowOf(gesa, 'Landing, Gull Sands')).some(cell => cell.includes('IB')),
    'who writes there',
  )
  await standOn(gesa, 'Landing, Gull Sands', 'Contact')
  await keys(gesa, 'The pilot', Key.ENTER)
  await until(
    gesa,
    async () => (await rowOf(gesa, 'Landing, Gull Sands')).some(cell => cell.startsWith('The pilot')),
    'the first to write',
  )
  await keys(owner, Key.ENTER)
  await owner.sees('Gesa Marwick wrote')
  expect(await owner.reads()).toMatch(/wrote The pilot in Contact, you wrote Harbour master/)
  await owner.press('Write mine')
  await until(
    gesa,
    async () => (await rowOf(gesa, 'Landing, Gull Sands')).includes('Harbour master'),
    'what was decided',
  )
})

test('a row is opened beside the board: its values, its history, a comment that mentions somebody', async () => {
  await owner.open(permits)
  await owner.press('Gate at North Spit')
  await owner.sees('The code of the gate changes in January.')
  await owner.press('Change State')
  await keys(owner, 'Granted', Key.ENTER)
  await until(owner, async () => (await rowOf(owner, 'Gate at North Spit'))[2] === 'Granted', 'granted')
  await owner.press('History')
  await owner.sees('Asked again')
  await owner.press('Put back State')
  await until(owner, async () => (await rowOf(owner, 'Gate at North Spit'))[2] === 'Asked again', 'put back')
  await owner.press('Comments')
  const field = await owner.field('Comment')
  await field.sendKeys('@Tams')
  await owner.find(`//*[@role='option'][contains(., 'Tamsin Arkell')]`)
  await field.sendKeys(Key.ENTER, 'could you post the form?')
  await owner.sees('Tamsin Arkell cannot open this and will not be told.')
  await field.sendKeys(Key.chord(Key.CONTROL, 'a'), Key.BACK_SPACE)
  await field.sendKeys('@Gesa')
  await owner.find(`//*[@role='option'][contains(., 'Gesa Marwick')]`)
  await field.sendKeys(Key.ENTER, 'could you post the form?')
  await owner.press('Comment')
  await owner.sees('@Gesa Marwick')
  expect(await owner.barriers()).toEqual([])
  const gesa = await demo.welcome('gesa@marram.example')
  await gesa.open(`${at}/notifications`)
  await gesa.sees('Ilse Brandt mentioned you in a comment on Gate at North Spit.')
})

test('the same rows in lanes and in a calendar: a card and a bar are moved by keys and by dragging', async () => {
  await owner.open(`${permits}?as=lanes`)
  await owner.sees('Drone flights')
  const card = await owner.find(`//button[normalize-space()='Drone flights']`)
  await card.sendKeys(Key.chord(Key.ALT, Key.ARROW_RIGHT))
  const asked = () => owner.find(`//section[@aria-label='Asked']//button[normalize-space()='Drone flights']`)
  await asked()
  // Keys go on with the card, where it stands now.
  await chord(owner, Key.ALT, Key.ARROW_RIGHT)
  await owner.find(`//section[@aria-label='Asked again']//button[normalize-space()='Drone flights']`)
  await chord(owner, Key.ALT, Key.ARROW_LEFT)
  await asked()
  await owner.fill('New row in Asked', 'Fence at Wick Lagoon')
  await keys(owner, Key.ENTER)
  await owner.find(`//section[@aria-label='Asked']//button[normalize-space()='Fence at Wick Lagoon']`)
  const toAsk = await owner.find(`//section[@aria-label='To ask']`)
  await owner.driver
    .actions()
    .move({ origin: await asked() })
    .press()
    .move({ origin: toAsk })
    .release()
    .perform()
  await owner.find(`//section[@aria-label='To ask']//button[normalize-space()='Drone flights']`)
  expect(await owner.barriers()).toEqual([])
  // A Wednesday: no step within this week leaves its line, whatever day it is today.
  await owner.open(`${at}/content/node-season-plan-calendar?as=calendar&on=2027-03-10`)
  await owner.press('New row …')
  await owner.fill('Name of the row', 'Boat wash')
  await owner.press('Create row')
  const bar = () => owner.find(`//button[starts-with(normalize-space(), 'Boat wash')]`)
  const rect = async () => (await bar()).getRect()
  const first = await rect()
  const changed = async (is: (now: typeof first) => boolean, what: string) =>
    until(owner, async () => is(await rect()), what)
  await (await bar()).sendKeys(Key.chord(Key.ALT, Key.ARROW_RIGHT))
  await changed(({ x }) => x > first.x, 'the bar on another day')
  const day = (await rect()).x - first.x
  const actions = () => owner.driver.actions()
  // Taken at its first day it goes back by one, and stays as long as it is.
  await actions()
    .move({ origin: await bar(), x: 12 - Math.round(first.width / 2), y: 0 })
    .press()
    .move({ origin: Origin.POINTER, x: -Math.round(day), y: 0 })
    .release()
    .perform()
  await changed(({ x, width }) => x === first.x && width === first.width, 'where it was')
  await actions()
    .move({ origin: await bar(), x: Math.round(first.width / 2) - 3, y: 0 })
    .press()
    .move({ origin: Origin.POINTER, x: Math.round(day), y: 0 })
    .release()
    .perform()
  await changed(({ x, width }) => x === first.x && width > first.width, 'a longer bar')
  // Keys go on with the bar through the weeks, and into another month.
  const month = async () => (await owner.find(`//main//h2`)).getText()
  const begun = await month()
  const focused = () => owner.driver.executeScript<string>('return document.activeElement.innerText')
  for (let week = 0; week < 6; week += 1) {
    const before = await focused()
    expect(before).toContain('Boat wash')
    await chord(owner, Key.ALT, Key.ARROW_UP)
    const isMoved = async () => {
      const now = await focused()
      return now !== before && now.includes('Boat wash')
    }
    await until(owner, isMoved, 'the bar a week earlier')
  }
  expect(await month()).not.toBe(begun)
  expect(await owner.barriers()).toEqual([])
})

test('an outsider sees no restricted column, comments, and writes in no cell', async () => {
  const guest = await demo.welcome('henrik@county-ecology.example')
  await guest.open(permits)
  await guest.sees('Gate at North Spit')
  expect(await guest.reads()).not.toMatch(/Fees|Contact|Estate office|Create column/)
  await standOn(guest, 'Gate at North Spit', 'State')
  await keys(guest, Key.ENTER, 'Granted', Key.ENTER)
  expect((await rowOf(guest, 'Gate at North Spit'))[2]).toBe('Asked again')
  await guest.open(`${permits}?where=${await feesColumn()}~%3E~10&sort=-${await feesColumn()}`)
  await guest.sees('It shows more than to others')
  await guest.press('Gate at North Spit')
  await guest.fill('Comment', 'The county agrees.')
  await guest.press('Comment')
  await guest.sees('The county agrees.')
  expect(await guest.barriers()).toEqual([])
})

const feesColumn = () =>
  owner.driver.executeAsyncScript<string>(
    `const [done] = arguments
     fetch('/api/at/marram-coast-survey/nodes/node-permits-and-consents-permits/board').then(each => each.json()).then(({ columns }) => done(columns.find(each => each.name === 'Fees').id))`,
  )

test('kit on loan: overdue and one’s own, by the views of the board', async () => {
  const joss = await demo.welcome('joss@marram.example')
  await joss.open(loans)
  await joss.sees('Dinghy')
  await joss.press('Overdue')
  await until(
    joss,
    async () => (await rowsShown(joss)).length > 0 && !(await rowsShown(joss)).includes('Dinghy'),
    'what is overdue',
  )
  expect(await rowsShown(joss)).toContain('Levelling staff')
})
