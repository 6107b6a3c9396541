import { check } from '../access/evaluate.ts'
import { allRows } from '../base/collection.ts'
import type { NodeId, PersonId } from '../base/ids.ts'
import type { Edit } from '../changes/edit.ts'
import type { UndoChangeSet } from '../changes/edits/undo.ts'
import { judge } from '../changes/judge.ts'
import { levelActions, nameOfActions } from '../levels/level.ts'
import { snapshotOf } from '../state/snapshot.ts'
import type { State } from '../state/state.ts'
import { now } from './world.ts'

/** What most edits of a kind leave as it is. */
const usual: { readonly [K in Edit['kind']]?: object } = {
  'person.invite': { from: null, profile: {}, welcome: null, mailed: true },
  'invitation.accept': { handle: null, agrees: false },
  'person.remove': { contact: null },
  'seats.change': { from: null },
}

export const edit = (kind: Edit['kind'], fields: object) => ({ kind, ...usual[kind], ...fields }) as Edit
export const judging = (state: State, author: string, ...edits: Edit[]) =>
  judge(snapshotOf(state, now), { author: author as PersonId, reason: '', edits })

/** The state after a change set that must be allowed. */
export function after(state: State, author: string, ...edits: Edit[]): State {
  const result = judging(state, author, ...edits)
  if (!result.ok) throw new Error(JSON.stringify(result.error))
  return result.value.state
}

export const refusal = (state: State, author: string, ...edits: Edit[]) => {
  const result = judging(state, author, ...edits)
  return result.ok ? 'allowed' : result.error.refusal
}

export const giving = (at: string, to: string, gives: number, more: object = {}) =>
  edit('grant.add', {
    grant: `${at} ${to} new`,
    node: at,
    principal: to,
    gives,
    from: null,
    until: null,
    ...more,
  })

export const steward = levelActions('Steward')
export const reader = levelActions('Reader')
export const editor = levelActions('Editor')

/** How what somebody may do somewhere is called. */
export const levelOf = (state: State, who: string, where: string, at = now): string =>
  nameOfActions(check(snapshotOf(state, at), who as PersonId, where as NodeId), allRows(state.levels)).name

/** The state after a change set that must be allowed, and the edit that takes it back. */
export function done(
  state: State,
  author: string,
  ...edits: Edit[]
): { state: State; back: UndoChangeSet & Edit } {
  const result = judging(state, author, ...edits)
  if (!result.ok) throw new Error(JSON.stringify(result.error))
  const back = { kind: 'undo' as const, revision: 1, changes: result.value.changes, written: [] }
  return { state: result.value.state, back }
}

export const moving = (what: string, to: string) => edit('node.move', { node: what, parent: to })
export const setting = (what: string, fields: object) => edit('node.state', { node: what, ...fields })
export const making = (id: string, parent: string, as = 'page') =>
  edit('node.create', { node: id, parent, as, name: id })
export const publishing = (id: string) => edit('node.web', { node: id, web: 'published' })
export const turning = (id: string, as = 'guest') =>
  edit('person.convert', { person: id, as, taker: null, holding: 'th', folder: 'tf', grant: 'tg' })
