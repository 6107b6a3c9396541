import { expect, test } from 'vitest'
import type { NodeId, PersonId, TeamId } from '../base/ids.ts'
import type { Refusal } from '../changes/refusal.ts'
import { type Naming, refusalInWords } from './refusal.ts'

const node = 'hidden-node' as NodeId
const team = 'hidden-team' as TeamId
const person = 'hidden-person' as PersonId

const refusals: Refusal[] = [
  { code: 'unknown', what: 'place' },
  { code: 'action-missing', action: 'share', node },
  { code: 'privilege-missing', privilege: 'invite guests' },
  { code: 'lead-missing', team },
  { code: 'gives-more', node, lacks: ['change', 'remove'] },
  { code: 'own-raise', nodes: [node] },
  { code: 'no-steward-left', nodes: [node], when: 'after ends' },
  { code: 'outranked', person },
  { code: 'guest-rule', rule: 'not welcome', person },
  { code: 'end-in-past' },
  { code: 'start-after-end' },
  { code: 'wrong-place', within: 'board', kind: 'page' },
  { code: 'limits-only' },
  { code: 'already-there', what: 'membership' },
  { code: 'invitation-over' },
  { code: 'publishing-off' },
  { code: 'in-use', what: 'level' },
  { code: 'locked', what: 'role' },
  { code: 'no-seat', free: 12, needed: 13 },
  { code: 'kept-by-directory', team },
  { code: 'has-steward', node },
  { code: 'private' },
  { code: 'nothing-to-undo' },
  { code: 'never-undone' },
]

const nothing: Naming = { place: () => undefined, person: () => undefined, team: () => undefined }

test.each(refusals)(
  '$code says what was refused and what would work, and names nothing that is hidden',
  refusal => {
    const words = refusalInWords(refusal, nothing)
    for (const sentence of [words.title, words.instead]) expect(sentence).toMatch(/^[A-Z].*\.$/)
    expect(JSON.stringify(words)).not.toMatch(/hidden|undefined/)
  },
)

test('places that the reader knows are named, three of them at most', () => {
  const nodes = ['A', 'B', 'secret', 'C', 'D', 'E'] as NodeId[]
  const naming: Naming = { ...nothing, place: id => (id === 'secret' ? undefined : id) }
  expect(refusalInWords({ code: 'own-raise', nodes }, naming).title).toBe(
    'You cannot give yourself more access on A, B, C and 2 more.',
  )
})
