import type { VisiblePlace } from '#core/access/by-id.ts'
import { setImmediate } from 'node:timers/promises'
import type { AccessiblePlaceView } from '#contract/views/access.ts'
import type { PlaceHit } from '#contract/views/content.ts'
import type { PathView } from '#contract/views/names.ts'
import { givenTo } from '#core/access/matching.ts'
import { type Subject, subjectOf } from '#core/access/subject.ts'
import type { ContentNode } from '#core/tree/node.ts'
import { rowOf } from '#core/base/collection.ts'
import type { NodeId, PersonId } from '#core/base/ids.ts'
import { knowsTeam } from '#core/changes/context.ts'
import { type ActionSet, has } from '#core/levels/action.ts'
import { isAsleep, type Privilege } from '#core/levels/privilege.ts'
import { privilegesOf, type Role } from '#core/people/role.ts'
import { partsOf } from '#core/rules/principal.ts'
import type { Holding } from '#core/people/person.ts'
import { type Place, placeOf } from '#core/access/place.ts'
import { compareWords } from '#core/base/compare-words.ts'
import type { Parts } from '../../parts.ts'
import { problemOf } from '../../problem-error.ts'
import { type Asker, holdsAt, knowsPerson, pathWords } from '../viewer/asker.ts'
import { findPlaces } from '../viewer/place-search.ts'
import { mayAskOf } from '../viewer/questions.ts'
import { visiblePlaces } from '../../worker/by-id.ts'

/** Where somebody has access, as far as the asker may be told: each place at which it differs from above. */
export async function accessiblePlaces(
  parts: Parts,
  asker: Asker,
  id: string,
): Promise<AccessiblePlaceView[]> {
  const subject = subjectOf(asker.snapshot, id as PersonId)
  if (subject === undefined || !knowsPerson(asker, subject.person.id)) throw problemOf('not-found')
  return reachedBy(asker, subject, {
    visible: await visiblePlaces(parts.thread, { ...asker, person: subject.person.id }),
    mayTell: node => mayAskOf(asker, subject.person.id, node),
  })
}

/** Places by their name where the asker gives access: what can be offered to somebody. */
export const placesToOffer = (asker: Asker, find: string): Promise<PlaceHit[]> =>
  findPlaces(asker, {
    find,
    may: (_, actions) => has(actions, 'share'),
    fits: node => node.home?.of !== 'person',
  })

interface Reaching {
  readonly visible: Iterable<VisiblePlace>
  readonly mayTell: (node: NodeId) => boolean
}

/** So many are looked at between one turn of others and the next. */
const atOnce = 1000

/** Down the tree, parents first; a place that gives just what the one above gives is counted there. */
export async function reachedBy(
  asker: Asker,
  subject: Subject,
  { visible, mayTell }: Reaching,
): Promise<AccessiblePlaceView[]> {
  const { nodes } = asker.snapshot.state
  const found: { view: AccessiblePlaceView; alike: number }[] = []
  /** By the place of a segment in the list, under which view it is counted. */
  const toldIn: ((typeof found)[number] | undefined)[] = []
  for (const { id, isRoot, within, actions, count } of visible) {
    const above = toldIn[within]
    if (isRoot || !mayTell(id)) {
      toldIn.push(undefined)
    } else if (above?.view.actions === actions) {
      above.alike += count
      toldIn.push(above)
    } else {
      const node = rowOf(nodes, id) as ContentNode
      const view = {
        view: reachedAt(asker, subject, { node, actions }),
        alike: count - 1,
      }
      found.push(view)
      toldIn.push(view)
    }
    if (toldIn.length % atOnce === 0) await setImmediate()
  }
  return found.map(({ view, alike }) => ({ ...view, alike })).sort((a, b) => compareWords(wayTo(a), wayTo(b)))
}

function reachedAt(
  asker: Asker,
  subject: Subject,
  { node, actions }: { readonly node: ContentNode; readonly actions: ActionSet },
): AccessiblePlaceView {
  const place = placeOf(asker.snapshot, node.id)
  return {
    id: node.id,
    name: node.name,
    kind: node.home === null ? node.kind : 'home',
    path: pathWords(asker, place?.path.slice(1) ?? []),
    actions,
    through: place === undefined ? [] : throughWords(asker, subject, place),
    alike: 0,
  }
}

/** The whole way down, by which places are ordered as one would meet them. */
export const wayTo = ({ path, name }: PathView) => (path === '' ? name : `${path} › ${name}`)

/** By name, as one of all members, through which team: each once. */
export function throughWords(asker: Asker, subject: Subject, { node, grants }: Place): string[] {
  const { snapshot, person } = asker
  const sharesThere = holdsAt(asker, node.id, 'share')
  const matching = grants.filter(({ grant }) => subject.principals.has(grant.principal))
  const words = matching
    .filter(each => has(givenTo(subject, [each]), 'see'))
    .map(({ grant }) => {
      const parts = partsOf(grant.principal)
      if (parts.kind === 'person') return 'by name'
      if (!('team' in parts)) return 'all members'
      if (!sharesThere && !knowsTeam(snapshot, person, parts.team)) return 'a team that you do not know'
      const name = rowOf(snapshot.state.teams, parts.team)?.name ?? ''
      return parts.kind === 'leads' ? `lead of ${name}` : name
    })
  return [...new Set(words)]
}

/** What a role lets one do, and what of it has no effect over the scope in which it is held. */
export function heldBy(role: Role, { scope }: Holding): { privileges: Privilege[]; asleep: Privilege[] } {
  const privileges = [...privilegesOf(role)]
  return { privileges, asleep: privileges.filter(each => isAsleep(each, scope.over)) }
}
