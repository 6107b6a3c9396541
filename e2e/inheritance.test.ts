import { afterAll, beforeAll, expect, test } from 'vitest'
import { demoPassword } from '#demo/scenario/people.ts'
import { type DemoServer, startDemo } from './server.ts'
import { Visitor } from './visitor.ts'

/** Breaking, following again and limiting, each with its effect first, with a member beside the Owner. */
const place = '/at/marram-coast-survey/content/node-sites-harrow-creek'
let server: DemoServer
let owner: Visitor
let member: Visitor

beforeAll(async () => {
  server = await startDemo()
  ;[owner, member] = await Promise.all([Visitor.arrive(server.address), Visitor.arrive(server.address)])
  await owner.signIn('ilse@marram.example', demoPassword)
  await member.signIn('pilar@marram.example', demoPassword)
})

afterAll(async () => {
  await Promise.all([owner.close(), member.close()])
  await server.stop()
})

test('after a break the member no longer sees the folder; followed again, the member does', async () => {
  await owner.open(place)
  await owner.press('Stop what comes from above')
  await owner.sees('lose')
  await owner.press('Look through')
  await owner.sees('Pilar Onsund')
  expect(await owner.barriers()).toEqual([])
  await owner.press('Stop what comes from above')
  await owner.sees('What comes from above stops at Harrow Creek.')
  await owner.sees('Inheritance is broken here.')
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
  await owner.sees('Inheritance is broken here.')
  await owner.open('/at/marram-coast-survey/content/node-sites')
  await owner.sees('broken')
})

test('a limit lowers the level, and Why? shows it in the sum', async () => {
  await owner.open('/at/marram-coast-survey/content/node-sites-north-spit-access-notes')
  await owner.press('Limit somebody here')
  await owner.choose('Whom to limit', 'All guests')
  await owner.choose('At most', 'Preview')
  await owner.sees('loses')
  expect(await owner.barriers()).toEqual([])
  await owner.press('Limit to Preview')
  await owner.sees('Limited to Preview on Access Notes.')
  await owner.press('Why does Sefa Lund have this?')
  await owner.sees('A limit set on Access Notes leaves Preview.')
})
