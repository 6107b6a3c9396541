import { afterAll, beforeAll, expect, test } from 'vitest'
import { type OwnerOfDemo, ownerOfDemo } from './stage.ts'
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
  await owner.pick('Add a person to Bird Counts', 'Sunniva Berg')
  await owner.sees('1 person gains')
  expect(await owner.barriers()).toEqual([])
  await owner.press('Add a reason')
  await owner.fill('Reason', 'Winter counts')
  await owner.press('Add Sunniva Berg to Bird Counts')
  await owner.sees('Sunniva Berg is added to Bird Counts.')

  await owner.open(`${at}/people/person-davit`)
  await owner.press('Suspend …')
  await owner.sees('1 person loses all access')
  expect(await owner.barriers()).toEqual([])
  await owner.pressRow('Suspend Davit Orbel')
  await owner.sees('Suspended: no access to anything')

  await owner.open(`${at}/content/node-sites-north-spit-photos`)
  await owner.pressAct('Move …')
  await owner.pick('Move Photos to', 'Harrow Creek')
  await owner.sees('lose')
  expect(await owner.barriers()).toEqual([])
  await owner.press('Move to Harrow Creek')
  await owner.sees('Photos is now in Harrow Creek.')
  await owner.pressAct('Move to bin …')
  await owner.sees('lose all access')
  await owner.pressRow('Move to bin, ')
  await owner.sees('Photos is now in the bin.')
  await owner.followPart('Bin: ')
  await owner.press('Restore Photos')
  await owner.sees('gain')
  expect(await owner.barriers()).toEqual([])
  await owner.press('Restore')
  await owner.sees('Photos is restored.')
})

test('the history tells who did what and why, is filtered, and undoes with its own effect first', async () => {
  await owner.follow('Oversight')
  await owner.follow('History')
  await owner.sees('added Sunniva Berg to Bird Counts · “Winter counts”')
  await owner.press('limits')
  await owner.sees('limited All guests to Commenter on Permits and Consents')
  await owner.misses('Nest Locations')
  await owner.press('everything')
  await owner.pick('Person', 'Davit Orbel')
  await owner.sees('by or about Davit Orbel')
  await owner.pressRow('suspended Davit Orbel')
  await owner.press('Undo …')
  await owner.sees('1 person gains')
  expect(await owner.barriers()).toEqual([])
  await owner.press('Undo')
  await owner.sees('The change is undone.')
  await owner.sees('by undoing reactivated Davit Orbel')
  await owner.sees('This change was undone.')
})

test('what cannot be undone whole says what it leaves out', async () => {
  await owner.open(`${at}/content/node-sites-gull-sands`)
  await owner.press('Break inheritance …')
  await owner.sees('Nobody’s access changes.')
  await owner.press('Break inheritance')
  await owner.sees('Inheritance is broken')
  await owner.press('Change Reader of All members')
  await owner.choose('Level of All members', 'Commenter')
  await owner.press('Change to Commenter')
  await owner.sees('All members now has Commenter on Gull Sands.')
  await owner.open(`${at}/oversight/history?place=node-sites-gull-sands`)
  await owner.pressRow('broke inheritance')
  await owner.press('Undo …')
  await owner.sees('Not undone')
  await owner.sees('this was changed again')
  await owner.press('Undo')
  await owner.sees('The change is undone.')
})

test('those concerned are told, here and by mail, and choose of what', async () => {
  const sunniva = await demo.welcome('sunniva@marram.example')
  await sunniva.open(`${at}/notifications`)
  await sunniva.sees('Ilse Brandt shared')
  await sunniva.sees('unread')
  expect(await sunniva.barriers()).toEqual([])
  await sunniva.press('Mark all as read')
  await sunniva.sees('all read')
  await sunniva.choose('Notify me when a place is shared with me', 'never')
  await sunniva.open('/mailbox')
  await sunniva.pressRow('sunniva@marram.example')
  await sunniva.sees('Choose which notifications come by mail')
})
