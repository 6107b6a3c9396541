import type { GrantView } from '#contract/views/access.ts'
import type { PrincipalName } from '#contract/views/names.ts'
import { type ActionSet, noActions, union } from '#core/levels/action.ts'

/** All that is given to one principal at a place, here and from above, as one. */
export interface Entry extends PrincipalName {
  readonly grants: readonly GrantView[]
  /** What the grants that have begun come to; where none has, what they will. */
  readonly actions: ActionSet
  readonly isLater: boolean
}

export interface Group {
  readonly name: string
  readonly entries: readonly Entry[]
}

const groups: readonly { readonly name: string; readonly holds: (entry: PrincipalName) => boolean }[] = [
  { name: 'Teams', holds: ({ kind }) => kind === 'team' || kind === 'leads' },
  { name: 'All members', holds: ({ kind }) => kind === 'everyone' },
  { name: 'Invited', holds: ({ status }) => status === 'invited' },
  { name: 'People', holds: ({ kind }) => kind === 'member' },
  { name: 'Guests', holds: ({ kind }) => kind === 'guest' },
]

/** In which order they are shown: the invited last, though they are looked for first. */
const shown = ['Teams', 'All members', 'People', 'Guests', 'Invited']

/** What is given at a place, one entry a principal, in groups; a group that is empty is left out. */
export function groupsOf(grants: readonly GrantView[]): Group[] {
  const byPrincipal = new Map<string, GrantView[]>()
  for (const grant of grants) {
    const known = byPrincipal.get(grant.principal)
    if (known === undefined) byPrincipal.set(grant.principal, [grant])
    else known.push(grant)
  }
  const entries = [...byPrincipal.values()].flatMap(each => entryOf(each) ?? [])
  return shown.flatMap(name => {
    const found = entries.filter(entry => groups.find(group => group.holds(entry))?.name === name)
    return found.length === 0 ? [] : [{ name, entries: found }]
  })
}

function entryOf(grants: readonly GrantView[]): Entry | undefined {
  const [first] = grants
  if (first === undefined) return undefined
  const { principal, name, people, kind, status } = first
  const begun = grants.filter(grant => !grant.isWaiting)
  const isLater = begun.length === 0
  const counting = isLater ? grants : begun
  const actions = counting.reduce<ActionSet>(
    (set, grant) => union(set, grant.actions as ActionSet),
    noActions,
  )
  return { principal, name, people, kind, status, grants, actions, isLater }
}
