import { By, Key } from 'selenium-webdriver'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { type OwnerOfDemo, ownerOfDemo } from './stage.ts'
import type { Visitor } from './visitor.ts'
import { dayAhead } from './days.ts'

/** What becomes of places and people, each act with what it does first. */
const at = '/at/marram-coast-survey'
let demo: OwnerOfDemo
let owner: Visitor

beforeAll(async () => {
  demo = await ownerOfDemo()
  owner = demo.owner
})

afterAll(() => demo.leave())

test('a page goes to the web with what is in it, and is taken off again', async () => {
  await owner.open(`${at}/content/node-season-plan-who-is-where`)
  await owner.pressAct('Publish …')
  await owner.sees('Anybody on the web gains Preview on 1 place')
  expect(await owner.barriers()).toEqual([])
  await owner.press('Publish')
  await owner.sees('on the web for everybody')
  await owner.pressAct('Web …')
  await owner.press('Same as the place above')
  await owner.press('Use the setting of the place above')
  await owner.sees('is published only if a place above is.')
  await owner.misses('for everybody')
})

test('a folder is copied beside itself without anybody’s access', async () => {
  await owner.open(`${at}/content/node-sites-harrow-creek-method`)
  await owner.pressAct('Duplicate …')
  await owner.sees('Limits and broken inheritance are copied')
  await owner.sees('gain')
  expect(await owner.barriers()).toEqual([])
  await owner.press('Duplicate to Harrow Creek')
  await owner.sees('Method (copy) is now in Harrow Creek.')
  await owner.open(`${at}/content/node-sites-harrow-creek`)
  await owner.follow('Method (copy)')
  await owner.sees('On the transect')
  await owner.sees('Plant list')
})

test('what is in the bin is deleted for good, once that is said', async () => {
  await owner.open(`${at}/content/node-sites-harrow-creek`)
  await owner.follow('Method (copy)')
  await owner.pressAct('Move to bin …')
  await owner.pressRow('Move to bin, ')
  await owner.sees('Method (copy) is now in the bin.')
  await owner.open(`${at}/content/bin`)
  await owner.press('Delete Method (copy) for good')
  await owner.sees('This cannot be undone.')
  expect(await owner.barriers()).toEqual([])
  await owner.press('Delete for good')
  await owner.sees('Method (copy) is deleted.')
  await owner.open(`${at}/oversight/history`)
  await owner.sees('deleted the page Method (copy) for good')
})

test('a board says which of its columns are restricted, and to whom', async () => {
  const permits = `${at}/content/node-permits-and-consents-permits`
  await owner.open(permits)
  await owner.pressRow('Fees')
  await owner.press('Change column …')
  await owner.find(`//aside[.//*[contains(., 'Gesa Marwick')]]`)
  expect(await owner.barriers()).toEqual([])
  const guest = await demo.welcome('henrik@county-ecology.example')
  await guest.open(permits)
  await guest.sees('Gate at North Spit')
  const heads = await guest.driver.findElements(By.css('[role=columnheader]'))
  const named = await Promise.all(heads.map(each => each.getText()))
  expect(named).toEqual(expect.arrayContaining(['Name', 'No.', 'State', 'Who', 'Valid through']))
  expect(await guest.reads()).not.toMatch(/Fees|Contact|New column/)
})

test('somebody gets a role and loses it, gets an end, becomes a guest, and is removed', async () => {
  const end = dayAhead(90)
  await owner.open(`${at}/people/person-wren`)
  await owner.press('Assign role …')
  await owner.choose('Role to assign', 'Channel minder')
  await owner.press('Assign the role Channel minder')
  await owner.sees('The role Channel minder is assigned to Wren Castellan.')
  await owner.press('Remove: Channel minder')
  await owner.pressRow('Remove the role Channel minder')
  await owner.sees('The role Channel minder is removed from Wren Castellan.')
  await owner.press('Set end …')
  await owner.fillDay('Ends after, Wren Castellan', end.day)
  await owner.press('Set end')
  await owner.sees(`Until ${end.words}`)
  await owner.press('Turn into a guest …')
  await owner.sees('This team does not allow guests.')
  expect(await owner.barriers()).toEqual([])
  await owner.press('Remove …')
  await owner.sees('loses all access')
  await owner.pressRow('Remove Wren Castellan')
  await owner.sees('Wren Castellan is removed.')
  await owner.misses('wren@marram.example')
})

test('a board’s columns are made, restricted to some with the effect of it, and deleted', async () => {
  await owner.open(`${at}/content/node-permits-and-consents-permits`)
  await owner.press('Board')
  await owner.press('New column …')
  await owner.fill('Name of the column', 'Deposit')
  await owner.sees('Nobody’s access changes.')
  await owner.press('Create column')
  await owner.sees('The column Deposit is created.')
  await owner.press('Deposit')
  await owner.press('Change column …')
  await owner.tick('Only these')
  await owner.pick('Who can see it', 'Gesa Marwick')
  await owner.sees('Henrik Maas does not see the column Deposit of Permits')
  expect(await owner.barriers()).toEqual([])
  await owner.press('Save column')
  await owner.sees('The column Deposit is changed.')
  await owner.pressRow('Deposit')
  await owner.press('Delete column …')
  await owner.pressRow('Delete the column Deposit')
  await owner.sees('The column Deposit is deleted.')
})

test('the places of a folder are put into an order by hand, with the keyboard, and by their names again', async () => {
  const names = async () => {
    const rows = await owner.driver.findElements(By.css('main section td a'))
    return Promise.all(rows.map(row => row.getText()))
  }
  await owner.open(`${at}/content/node-sites-otter-slack`)
  await owner.sees('Arrange by hand …')
  const before = await names()
  await owner.press('Arrange by hand …')
  const [first] = await owner.driver.findElements(By.css('li[data-row]'))
  await first?.sendKeys(Key.chord(Key.ALT, Key.ARROW_DOWN))
  // The row that was moved has the focus: pressed again it goes on.
  await owner.driver.wait(
    async () => (await owner.driver.switchTo().activeElement().getAttribute('data-row')) !== null,
    5000,
  )
  await owner.driver.switchTo().activeElement().sendKeys(Key.chord(Key.ALT, Key.ARROW_DOWN))
  expect(await owner.barriers()).toEqual([])
  await owner.press('Save order')
  await owner.sees('The order is saved.')
  const [one, two, three, ...others] = before
  expect(await names()).toEqual([two, three, one, ...others])
  await owner.press('Arrange by hand …')
  await owner.press('Order by name')
  await owner.sees('The places are in the order of their names.')
  expect(await names()).toEqual(before)
})

test('a channel is made for some people of a team, changed and archived', async () => {
  const lead = await demo.welcome('aino@marram.example')
  await lead.open(`${at}/teams/team-birds`)
  await lead.press('Create channel …')
  await lead.fill('Name', 'night-watch')
  await lead.tick('Only these')
  await lead.pick('Who reads it', 'Davit Orbel')
  expect(await lead.barriers()).toEqual([])
  await lead.press('Create channel')
  await lead.sees('The channel night-watch is created.')
  await lead.sees('Restricted: Davit Orbel, as far as they are in Bird Counts. You do not read it.')
  await lead.press('Change the channel night-watch')
  await lead.fill('Description', 'Who sleeps where')
  await lead.tick('Archived: it stays readable, nobody can write in it')
  await lead.press('Save channel')
  await lead.sees('The channel night-watch is changed.')
  await lead.sees('Who sleeps where')
})

test('where nobody can share a place any more, an owner recovers access to it', async () => {
  await owner.open(`${at}/people/person-tomas`)
  await owner.press('Suspend …')
  await owner.pressRow('Suspend Tomas Reuss')
  await owner.sees('Tomas Reuss is suspended.')
  await owner.open(`${at}/oversight/check?ask=who`)
  await owner.fill('Reason for outline access', 'Nest Locations has lost its steward')
  await owner.press('Start outline access')
  await owner.pick('Place', 'Nest Locations')
  await owner.sees('Nobody can share this place any more: it has no active steward.')
  await owner.press('Recover access …')
  await owner.sees('1 person gains Steward')
  // Enter in a field that finds nobody does not send the form.
  await owner.fill('Steward', 'No such member')
  await (await owner.field('Steward')).sendKeys(Key.ENTER)
  await owner.sees('Nobody found')
  expect(await owner.reads()).toContain('Nobody can share this place any more')
  expect(await owner.barriers()).toEqual([])
  await owner.press('Make Ilse Brandt steward')
  await owner.sees('Ilse Brandt is now a steward of the place.')
  await owner.misses('Nobody can share this place any more')
})
