import type { ViewedPlaceView, ViewedView, ViewingSessionsView } from '#contract/views/viewing.ts'
import { actionsAt } from '#core/access/evaluate.ts'
import { placeOf } from '#core/access/place.ts'
import { mayUse } from '#core/access/powers.ts'
import { isActive, peopleOf } from '#core/access/subject.ts'
import { allRows, rowOf } from '#core/base/collection.ts'
import type { ViewingSessionId, NodeId, PersonId } from '#core/base/ids.ts'
import { compareWords } from '#core/base/compare-words.ts'
import { noActions } from '#core/levels/action.ts'
import type { Privilege } from '#core/levels/privilege.ts'
import type { ViewingSession } from '#core/people/asking.ts'
import { childrenOf, pathOf, rootOf } from '#core/state/state.ts'
import type { ContentNode } from '#core/tree/node.ts'
import type { Parts } from '../../parts.ts'
import { problemOf } from '../../problem-error.ts'
import { type Asker, asks, knowsPerson, mayOutline, maySee, nameOf, readerAt } from '../viewer/asker.ts'
import { viewingSessionView } from './viewing-session.ts'
import { nameView } from '../people/people.ts'
import { throughWords } from '../access/accessible-places.ts'
import { textView } from '../content/text.ts'

const looking: readonly Privilege[] = ['see the outline', 'see as']

/** Who may look at what only a privilege shows, and who did: everything to those who read the history. */
export function viewingSessionsView(parts: Parts, asker: Asker): ViewingSessionsView {
  const [mayOutline, maySeeAs] = looking.map(each => asks(asker, each))
  const readsAll = asks(asker, 'read the history')
  if (mayOutline !== true && maySeeAs !== true && !readsAll) throw problemOf('not-found')
  const { snapshot, person } = asker
  const people = [...peopleOf(snapshot)].filter(
    each => isActive(snapshot, each) && knowsPerson(asker, each.id),
  )
  return {
    maySeeAs: maySeeAs === true,
    mayOutline: mayOutline === true,
    people:
      maySeeAs === true
        ? people
            .filter(each => each.id !== person)
            .map(nameView)
            .sort((a, b) => compareWords(a.name, b.name))
        : [],
    holders: people
      .flatMap(({ id }) => {
        const held = looking.filter(each => mayUse(snapshot, id, each))
        return held.length === 0 ? [] : [{ person: { id, name: nameOf(snapshot, id) }, privileges: held }]
      })
      .sort((a, b) => compareWords(a.person.name, b.person.name)),
    sessions: allRows(snapshot.state.viewingSessions)
      .filter(each => readsAll || each.by === person)
      .sort((a, b) => b.at - a.at)
      .slice(0, 200)
      .map(each => viewingSessionView(parts, asker, each)),
  }
}

interface Looking {
  readonly asker: Asker
  readonly session: ViewingSession
  /** Who is looked through; nobody for the outline. */
  readonly eyes: Asker | undefined
}

/** A look of the asker's own that is not over, by a privilege that the asker still holds. */
function openLook({ clock }: Parts, asker: Asker, id: string): Looking {
  const session = rowOf(asker.snapshot.state.viewingSessions, id as ViewingSessionId)
  if (session?.by !== asker.person) throw problemOf('not-found')
  const privilege = session.through === null ? 'see the outline' : 'see as'
  if (session.until <= clock() || !asks(asker, privilege)) throw problemOf('session-over')
  const eyes = session.through === null ? undefined : eyesOf(asker, session.through)
  return { asker, session, eyes }
}

function eyesOf(asker: Asker, id: PersonId): Asker {
  const eyes = readerAt(asker.workspace, asker.snapshot, id)
  if (eyes?.subject.isActive !== true) throw problemOf('session-over')
  return eyes
}

/** One place of the tree as a look shows it, with what is in it; the top without a place. */
export async function viewedView(
  parts: Parts,
  asker: Asker,
  { id, node }: { readonly id: string; readonly node: string | undefined },
): Promise<ViewedView> {
  const looking = openLook(parts, asker, id)
  const { state } = asker.snapshot
  const session = viewingSessionView(parts, asker, looking.session)
  if (node === undefined) {
    const roots = rootsOf(looking)
    return {
      session,
      place: null,
      children: roots.map(each => placeView(looking, each)),
      kept: privateFolders(looking),
    }
  }
  const place = rowOf(state.nodes, node as NodeId)
  if (place === undefined || !isShown(looking, place)) throw problemOf('not-found')
  const children = childrenOf(state, place.id).filter(each => isShown(looking, each))
  return {
    session,
    place: {
      ...placeView(looking, place),
      through: throughOf(looking, place),
      text: await textOfBoth(parts, looking, place),
    },
    children: children.map(each => placeView(looking, each)),
    kept: { of: [], count: 0 },
  }
}

/** Only what both may see; to who may outline, the title is enough. Nothing in the bin, and the root is no place. */
function isShown({ asker, eyes }: Looking, node: ContentNode): boolean {
  if (node.parent === null) return false
  const mayKnow = maySee(asker, node.id) || mayOutline(asker, node.id)
  const isBinned = pathOf(asker.snapshot.state, node.id).some(each => each.binned !== null)
  return mayKnow && !isBinned && (eyes === undefined || maySee(eyes, node.id))
}

/** What stands at the top of the tree as it is shown: its parent is not. Costs what the tree costs for a person's eyes. */
function rootsOf(looking: Looking): ContentNode[] {
  const { state } = looking.asker.snapshot
  const homes = childrenOf(state, rootOf(state).id)
  if (looking.eyes === undefined)
    return homes.filter(each => each.home?.of !== 'person' && isShown(looking, each))
  return shownBelow(looking, homes)
}

/** Walks down until something is shown. */
function shownBelow(looking: Looking, nodes: readonly ContentNode[]): ContentNode[] {
  const { state } = looking.asker.snapshot
  return nodes.flatMap(node =>
    isShown(looking, node) ? [node] : shownBelow(looking, childrenOf(state, node.id)),
  )
}

const namedAtMost = 200

/** Private folders: the outline tells whose they are and opens none. */
function privateFolders({ asker, eyes }: Looking): ViewedView['kept'] {
  const { state } = asker.snapshot
  const homes = eyes === undefined ? childrenOf(state, rootOf(state).id) : []
  const owners = homes.flatMap(({ home }) =>
    home?.of === 'person' ? [nameOf(asker.snapshot, home.person)] : [],
  )
  return { of: owners.sort(compareWords).slice(0, namedAtMost), count: owners.length }
}

function placeView(looking: Looking, node: ContentNode): ViewedPlaceView {
  const { asker, eyes } = looking
  const { state } = asker.snapshot
  const above = pathOf(state, node.id).slice(1)
  return {
    id: node.id,
    name: node.name,
    kind: node.kind,
    home: node.home?.of ?? null,
    path: above
      .filter(each => isShown(looking, each))
      .map(each => each.name)
      .toReversed()
      .join(' › '),
    hasChildren: childrenOf(state, node.id).some(each => isShown(looking, each)),
    isBroken: node.broken !== null,
    actions: eyes === undefined ? null : actionsFor(eyes, node.id),
  }
}

function actionsFor({ snapshot, subject }: Asker, node: NodeId): number {
  const place = placeOf(snapshot, node)
  return place === undefined ? noActions : actionsAt(snapshot, subject, place)
}

function throughOf({ eyes }: Looking, node: ContentNode): string[] {
  const place = eyes === undefined ? undefined : placeOf(eyes.snapshot, node.id)
  return eyes === undefined || place === undefined ? [] : throughWords(eyes, eyes.subject, place)
}

/** Content only where both may read it; never in the outline. */
async function textOfBoth(parts: Parts, { asker, eyes }: Looking, node: ContentNode): Promise<string | null> {
  if (eyes === undefined || node.kind !== 'page' || !maySee(asker, node.id)) return null
  return (await textView(parts, asker, node.id)).text
}
