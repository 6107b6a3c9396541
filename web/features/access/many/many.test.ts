import { describe, expect, test } from 'vitest'
import type { PlacedGrantView } from '#contract/views/access.ts'
import { endOfDay } from '#contract/dates.ts'
import { levelActions } from '#core/levels/level.ts'
import { type Act, actionsOf, editsFor, isWithin } from './many.ts'

const reader = levelActions('Reader')
const editor = levelActions('Editor')
const own = [{ id: 'level-own', name: 'Tidier', note: '', actions: 0b10001 }]
const grant = (id: string, more: Partial<PlacedGrantView> = {}): PlacedGrantView => ({
  id,
  principal: 'person:p',
  name: 'p',
  people: 1,
  kind: 'member',
  status: 'active',
  actions: reader,
  gives: reader,
  at: null,
  isHere: true,
  from: null,
  until: null,
  by: null,
  since: 0,
  isWaiting: false,
  place: { id: `place of ${id}`, name: id, path: '' },
  held: levelActions('Steward'),
  isThrough: false,
  ...more,
})
const wanting = (act: Act, more: object = {}) => ({ act, gives: editor, through: '', allows: 0, ...more })
const editsOf = (grants: PlacedGrantView[], act: Act, more: object = {}) =>
  editsFor(grants, wanting(act, more), { timeZone: 'Europe/London', own })

describe('grants that are changed together', () => {
  test('get another level where they have another one, and where it is the author’s to give', () => {
    const grants = [
      grant('a'),
      grant('b', { gives: editor }),
      grant('c', { held: levelActions('Commenter') }),
    ]
    expect(editsOf(grants, 'Level')).toEqual([{ kind: 'grant.change', grant: 'a', gives: editor }])
    expect(
      editsOf(grants, 'Level', { gives: 'level-own' }).map(each => 'grant' in each && each.grant),
    ).toEqual(['a', 'b'])
  })

  test('end with the last day, or without an end, where that is another end', () => {
    const until = endOfDay('2026-12-31', 'Europe/London')
    const grants = [grant('a'), grant('b', { until })]
    expect(editsOf(grants, 'End', { through: '2026-12-31' })).toEqual([
      { kind: 'grant.change', grant: 'a', until },
    ])
    expect(editsOf(grants, 'End')).toEqual([{ kind: 'grant.change', grant: 'b', until: null }])
  })

  test('are limited at their places, or end', () => {
    expect(editsOf([grant('a')], 'Limit', { allows: reader })).toMatchObject([
      { kind: 'limit.add', node: 'place of a', principal: 'person:p', allows: reader },
    ])
    expect(editsOf([grant('a'), grant('b')], 'Remove')).toEqual([
      { kind: 'grant.end', grant: 'a' },
      { kind: 'grant.end', grant: 'b' },
    ])
  })
})

test('a level of one’s own is within what somebody holds if all of its actions are', () => {
  expect(actionsOf('level-own', own)).toBe(0b10001)
  expect(actionsOf('gone', own)).toBe(0)
  expect([isWithin(0b10001, editor), isWithin(0b10001, reader)]).toEqual([true, false])
})
