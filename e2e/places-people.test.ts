import { afterAll, beforeAll, expect, test } from 'vitest'
import { type OwnerOfDemo, ownerOfDemo } from './owner.ts'
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

test('a board names its columns, and whom they are restricted to', async () => {
  await owner.open(`${at}/content/node-permits-and-consents-permits`)
  await owner.sees('Date · Person · Status · Number')
  await owner.sees('editable by Gesa Marwick and stewards')
  expect(await owner.barriers()).toEqual([])
  const guest = await demo.welcome('henrik@county-ecology.example')
  await guest.open(`${at}/content/node-permits-and-consents-permits`)
  await guest.sees('Date · Person · Status · Number')
  expect(await guest.reads()).not.toMatch(/Fees|Contact/)
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
