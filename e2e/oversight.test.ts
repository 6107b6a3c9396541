import { afterAll, beforeAll, expect, test } from 'vitest'
import { type OwnerOfDemo, ownerOfDemo } from './owner.ts'
import type { Visitor } from './visitor.ts'

/** Acts with their effect first, then looked back at, undone, and told to whom they concern. */
const at = '/at/marram-coast-survey'
let demo: OwnerOfDemo
let owner: Visitor

beforeAll(async () => {
  demo = await ownerOfDemo()
  owner = demo.owner
})

afterAll(() => demo.leave())

test('membership, standing, place and state of a place show what they do before they do it', async () => {
  await owner.open(`${at}/teams/team-birds`)
  await owner.pick('Add somebody to Bird Counts', 'Sunniva Berg')
  await owner.sees('1 person gains')
  expect(await owner.barriers()).toEqual([])
  await owner.press('Say why')
  await owner.fill('Why', 'Winter counts')
  await owner.press('Put Sunniva Berg into Bird Counts')
  await owner.sees('Sunniva Berg is in Bird Counts now.')

  await owner.open(`${at}/people/person-davit`)
  await owner.press('Suspend …')
  await owner.sees('1 person loses all access')
  expect(await owner.barriers()).toEqual([])
  await owner.press('Suspend Davit Orbel')
  await owner.sees('Suspended: no access anywhere')

  await owner.open(`${at}/content/node-sites-north-spit-photos`)
  await owner.press('Move')
  await owner.pick('Move Photos to', 'Harrow Creek')
  await owner.sees('lose')
  expect(await owner.barriers()).toEqual([])
  await owner.press('Move it to Harrow Creek')
  await owner.sees('Photos is in Harrow Creek now.')
  await owner.press('Put in the bin')
  await owner.sees('lose all access')
  await owner.press('Put it in the bin')
  await owner.sees('Photos is in the bin.')
  await owner.follow('Bin: 1 place')
  await owner.press('Bring back: Photos')
  await owner.sees('gain')
  expect(await owner.barriers()).toEqual([])
  await owner.press('Bring it back')
  await owner.sees('Photos is back.')
})

test('the history tells who did what and why, is filtered, and undoes with its own effect first', async () => {
  await owner.follow('Oversight')
  await owner.follow('History')
  await owner.sees('put Sunniva Berg into Bird Counts · “Winter counts”')
  await owner.press('limits')
  await owner.sees('limited All guests to Commenter on Permits and Consents')
  await owner.misses('Nest Locations')
  await owner.press('everything')
  await owner.pick('By or about somebody', 'Davit Orbel')
  await owner.sees('by or about Davit Orbel')
  await owner.pressRow('suspended Davit Orbel')
  await owner.press('Undo it …')
  await owner.sees('1 person gains')
  expect(await owner.barriers()).toEqual([])
  await owner.press('Undo it')
  await owner.sees('It is undone.')
  await owner.sees('by undoing brought Davit Orbel back')
  await owner.sees('Undone since.')
})

test('what cannot be undone whole says what it leaves out', async () => {
  await owner.open(`${at}/content/node-sites-gull-sands`)
  await owner.press('Stop what comes from above')
  await owner.tick('Keep what counts now, as copies here')
  await owner.sees('Nobody’s access changes.')
  await owner.press('Stop what comes from above')
  await owner.sees('Inheritance is broken here')
  await owner.press('Change Reader of All members')
  await owner.choose('Level of All members', 'Commenter')
  await owner.press('Make it Commenter')
  await owner.sees('All members has Commenter on Gull Sands now.')
  await owner.open(`${at}/oversight/history?place=node-sites-gull-sands`)
  await owner.pressRow('stopped what comes from above')
  await owner.press('Undo it …')
  await owner.sees('Left as it is')
  await owner.sees('it was changed again since')
  await owner.press('Undo it')
  await owner.sees('It is undone.')
})

test('those concerned are told, here and by mail, and choose of what', async () => {
  const sunniva = await demo.welcome('sunniva@marram.example')
  await sunniva.open(`${at}/notices`)
  await sunniva.sees('Ilse Brandt opened')
  await sunniva.sees('unread')
  expect(await sunniva.barriers()).toEqual([])
  await sunniva.press('Mark all as read')
  await sunniva.sees('all read')
  await sunniva.choose('Tell me when something is opened for me', 'not at all')
  await sunniva.open('/mailbox')
  await sunniva.pressRow('sunniva@marram.example')
  await sunniva.sees('Choose there which notices come by mail')
})
