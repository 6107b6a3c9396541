import { afterAll, beforeAll, expect, test } from 'vitest'
import { largeOwner, largestHome, sizes } from '#demo/large.ts'
import { type Stage, stage } from './stage.ts'
import { startLarge } from './server.ts'
import type { Visitor } from './visitor.ts'

/** A workspace of two thousand people and fifty thousand places: what reaches very many is told in counts. */
let large: Stage
let owner: Visitor

beforeAll(async () => {
  large = await stage(startLarge)
  owner = await large.welcome(largeOwner.mail)
}, 180_000)

afterAll(() => large.leave())

test('what a grant to all does is counted before it is given, and stands so in the history', async () => {
  await owner.open(`/at/large/content/${largestHome(sizes.M)}`)
  await owner.pick('Share with a person, team or address', 'All members')
  await owner.choose('Level', 'Editor')
  await owner.sees('people gain')
  const told = /([\d,]+) people gain .*? on ([\d,]+) places/.exec(await owner.reads())
  expect(told).not.toBeNull()
  await owner.press('Show details')
  await owner.sees('times, once for each person and place')
  await owner.press('by person')
  await owner.sees('more people with the same or fewer changes')
  await owner.press('by place')
  await owner.sees('people gain')
  expect(await owner.barriers()).toEqual([])
  await owner.press('Give Editor')
  await owner.sees('All members now has Editor on')
  await owner.open('/at/large/oversight/history')
  await owner.sees(`${told?.[1] ?? ''} people on ${told?.[2] ?? ''} places`)
  await owner.pressRow('All members')
  await owner.sees('Effect')
  await owner.sees('times, once for each person and place')
  expect(await owner.barriers()).toEqual([])
})
