import { afterAll, beforeAll, expect, test } from 'vitest'
import { type OwnerOfDemo, ownerOfDemo } from './stage.ts'
import type { Visitor } from './visitor.ts'

/** Breaking, following again and limiting, each with its effect first, with a member beside the Owner. */
const place = '/at/marram-coast-survey/content/node-sites-harrow-creek'
let demo: OwnerOfDemo
let owner: Visitor
let member: Visitor

beforeAll(async () => {
  demo = await ownerOfDemo()
  owner = demo.owner
  member = await demo.welcome('pilar@marram.example')
})

afterAll(() => demo.leave())

test('after a break the member no longer sees the folder; followed again, the member does', async () => {
  await owner.open(place)
  await owner.press('Break inheritance …')
  await owner.sees('Nobody’s access changes.')
  await owner.tick('Start empty: keep only the grants on this place, and yourself')
  await owner.sees('lose')
  await owner.press('Show details')
  await owner.sees('Pilar Onsund')
  expect(await owner.barriers()).toEqual([])
  await owner.pressRow('Break inheritance, ')
  await owner.sees('Inheritance is broken on Harrow Creek.')
  await owner.sees('Inheritance is broken')
  await member.open(place)
  await member.sees('There is nothing here that you can open.')
  await owner.press('Restore inheritance …')
  await owner.sees('gain')
  await owner.press('Restore inheritance')
  await owner.sees('Inheritance is restored on Harrow Creek.')
  await member.open(place)
  await member.sees('Harrow Creek')
})

test('a break that keeps what counts changes nobody’s access', async () => {
  await owner.open(place)
  await owner.press('Break inheritance …')
  await owner.sees('Nobody’s access changes.')
  await owner.press('Break inheritance')
  await owner.sees('Inheritance is broken')
  await owner.open('/at/marram-coast-survey/content/node-sites')
  await owner.sees('broken')
})

test('a limit lowers the level, and Why? shows it in the sum', async () => {
  await owner.open('/at/marram-coast-survey/content/node-sites-north-spit-access-notes')
  await owner.press('Add limit …')
  await owner.pick('Person, team or group to limit', 'All guests')
  await owner.choose('Highest level', 'Preview')
  await owner.sees('people drop to Preview')
  expect(await owner.barriers()).toEqual([])
  await owner.press('Limit to Preview')
  await owner.sees('Limited to Preview on Access Notes.')
  await owner.press('Why does Sefa Lund have this?')
  await owner.sees('A limit on Access Notes leaves Preview.')
})

test('for what somebody may not do, the smallest changes that would let them are one act away', async () => {
  await owner.open('/at/marram-coast-survey/content/node-sites-gull-sands-method')
  await owner.press('People with access')
  await owner.press('Why does Pilar Onsund have this?')
  await owner.choose('How could Pilar Onsund', 'change what is there')
  await owner.sees('Add Pilar Onsund to Dune Survey')
  await owner.sees('Give Pilar Onsund')
  expect(await owner.barriers()).toEqual([])
  await owner.press('Do this: Add Pilar Onsund to Dune Survey')
  await owner.sees('1 person gains')
  await owner.press('Apply')
  await owner.sees('Done.')
})

test('a draft is seen by those who may change it, and by all once it is released', async () => {
  const page = '/at/marram-coast-survey/content/node-tide-safety-crossing-the-channel'
  await owner.open(page)
  await owner.pressAct('Turn into a draft …')
  await owner.sees('lose')
  await owner.press('Turn into a draft')
  await owner.sees('Crossing the channel is now a draft.')
  await member.open(page)
  await member.sees('There is nothing here that you can open.')
  await owner.pressAct('Release …')
  await owner.sees('gain')
  await owner.press('Release')
  await member.sees('Nobody crosses alone.')
})
