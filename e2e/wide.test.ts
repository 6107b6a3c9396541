import { afterAll, beforeAll, expect, test } from 'vitest'
import { largeOwner, largestHome, sizes } from '#demo/large.ts'
import { demoPassword } from '#demo/scenario/people.ts'
import { type DemoServer, startLarge } from './server.ts'
import { Visitor } from './visitor.ts'

/** A workspace of two thousand people and fifty thousand places: what reaches very many is told in counts. */
let server: DemoServer
let owner: Visitor

beforeAll(async () => {
  server = await startLarge()
  owner = await Visitor.arrive(server.address)
  await owner.signIn(largeOwner.mail, demoPassword)
}, 180_000)

afterAll(async () => {
  await owner.close()
  await server.stop()
})

test('what a grant to all does is counted before it is given, and stands so in the history', async () => {
  await owner.open(`/at/large/content/${largestHome(sizes.M)}`)
  await owner.pick('Open this for somebody', 'All members')
  await owner.choose('Level', 'Editor')
  await owner.sees('people gain')
  const told = /([\d,]+) people gain .*? on ([\d,]+) places/.exec(await owner.reads())
  expect(told).not.toBeNull()
  await owner.press('Look through')
  await owner.sees('times, one for each person and place')
  await owner.press('by person')
  await owner.sees('more people, each with as much or less')
  await owner.press('by place')
  await owner.sees('people have more')
  expect(await owner.barriers()).toEqual([])
  await owner.press('Give Editor')
  await owner.sees('All members has Editor on')
  await owner.open('/at/large/oversight/history')
  await owner.sees(`${told?.[1] ?? ''} people on ${told?.[2] ?? ''} places`)
  await owner.pressRow('All members')
  await owner.sees('What it did')
  await owner.sees('times, one for each person and place')
  expect(await owner.barriers()).toEqual([])
})
