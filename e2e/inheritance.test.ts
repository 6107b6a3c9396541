import { afterAll, beforeAll, expect, test } from 'vitest'
import { type OwnerOfDemo, ownerOfDemo } from './owner.ts'
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
  await owner.press('Stop what comes from above')
  await owner.sees('lose')
  await owner.press('Look through')
  await owner.sees('Pilar Onsund')
  expect(await owner.barriers()).toEqual([])
  await owner.press('Stop what comes from above')
  await owner.sees('What comes from above stops at Harrow Creek.')
  await owner.sees('Inheritance is broken here')
  await member.open(place)
  await member.sees('There is nothing here that you can open.')
  await owner.press('Follow again')
  await owner.sees('gain')
  await owner.press('Follow again')
  await owner.sees('Harrow Creek follows again.')
  await member.open(place)
  await member.sees('Harrow Creek')
})

test('a break that keeps what counts changes nobody’s access', async () => {
  await owner.open(place)
  await owner.press('Stop what comes from above')
  await owner.tick('Keep what counts now, as copies here')
  await owner.sees('Nobody’s access changes.')
  await owner.press('Stop what comes from above')
  await owner.sees('Inheritance is broken here')
  await owner.open('/at/marram-coast-survey/content/node-sites')
  await owner.sees('broken')
})

test('a limit lowers the level, and Why? shows it in the sum', async () => {
  await owner.open('/at/marram-coast-survey/content/node-sites-north-spit-access-notes')
  await owner.press('Limit somebody here')
  await owner.choose('At most', 'Preview')
  await owner.sees('2 people lose')
  expect(await owner.barriers()).toEqual([])
  await owner.press('Limit to Preview')
  await owner.sees('Limited to Preview on Access Notes.')
  await owner.press('Why does Sefa Lund have this?')
  await owner.sees('A limit set on Access Notes leaves Preview.')
})

test('for what somebody may not do, the smallest changes that would let them are one act away', async () => {
  await owner.open('/at/marram-coast-survey/content/node-sites-gull-sands-method')
  await owner.press('Each person')
  await owner.press('Why does Pilar Onsund have this?')
  await owner.choose('What would it take for Pilar Onsund to', 'change what is there')
  await owner.sees('Put Pilar Onsund into Dune Survey')
  await owner.sees('Give Pilar Onsund')
  expect(await owner.barriers()).toEqual([])
  await owner.press('Do this: Put Pilar Onsund into Dune Survey')
  await owner.sees('1 person gains')
  await owner.press('Do it now')
  await owner.sees('It is done.')
})

test('a draft is seen by those who may change it, and by all once it is released', async () => {
  const page = '/at/marram-coast-survey/content/node-tide-safety-crossing-the-channel'
  await owner.open(page)
  await owner.press('Make it a draft')
  await owner.sees('lose')
  await owner.press('Turn it into a draft')
  await owner.sees('Crossing the channel is a draft now.')
  await member.open(page)
  await member.sees('There is nothing here that you can open.')
  await owner.press('Release')
  await owner.sees('gain')
  await owner.press('Release it')
  await member.sees('Nobody crosses alone.')
})
