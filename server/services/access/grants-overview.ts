import type { CopiedAccessView, GrantsOverviewView, PlacedGrantView } from '#contract/views/access.ts'
import type { PlaceHit } from '#contract/views/content.ts'
import type { PathView } from '#contract/views/names.ts'
import type { EditRequest } from '#contract/edit-requests.ts'
import type { GrantsQuery, TakeOverQuery } from '#contract/requests.ts'
import { actionsAt, check } from '#core/access/evaluate.ts'
import { type Place, placeOf } from '#core/access/place.ts'
import { subjectOf, teamsOf } from '#core/access/subject.ts'
import { who } from '#core/access/who.ts'
import { rowsBy } from '#core/base/collection.ts'
import type { NodeId } from '#core/base/ids.ts'
import { isOver } from '#core/base/instant.ts'
import { compareWords } from '#core/base/compare-words.ts'
import { type ActionSet, has, holds, intersect } from '#core/levels/action.ts'
import type { Gives, Grant } from '#core/rules/access-entry.ts'
import { partsOf, personPrincipal, type Principal } from '#core/rules/principal.ts'
import { problemOf } from '../../problem-error.ts'
import { grantView, order } from './access.ts'
import { type Asker, pathWords, visiblePlace } from '../viewer/asker.ts'
import { principalName } from '../viewer/principal.ts'
import { wayTo } from './accessible-places.ts'

/**
 * What is given to a person or a team wherever it is, or all that is set at some places: as far as the asker
 * gives access there. What a person has through a team is told of too, and marked.
 */
export function grantsOverview(asker: Asker, { principal, places }: GrantsQuery): GrantsOverviewView {
  const { state, at } = asker.snapshot
  const about = principal as Principal | undefined
  const ids = places === undefined ? [] : [...new Set(places.split(','))]
  const shared = ids.flatMap(id => placeShared(asker, id) ?? [])
  const rows =
    about === undefined
      ? ids.flatMap(id => rowsBy(state.grants, 'node', id as NodeId))
      : principalsFor(asker, about).flatMap(each => rowsBy(state.grants, 'principal', each))
  return {
    revision: state.revision,
    grants: rows
      .filter(grant => !isOver(grant, at))
      .flatMap(grant => givenAt(asker, grant, about) ?? [])
      .sort(
        (a, b) =>
          compareWords(wayTo(a.place), wayTo(b.place)) || order(a) - order(b) || compareWords(a.name, b.name),
      ),
    places: shared,
    others: ids.length - shared.length,
  }
}

function placeShared(asker: Asker, id: string): PlaceHit | undefined {
  const place = placeOf(asker.snapshot, id as NodeId)
  if (place === undefined || place.node.kind === 'root' || place.binnedAt !== undefined) return undefined
  const actions = actionsAt(asker.snapshot, asker.subject, place)
  return has(actions, 'share') ? { ...pathView(asker, place), actions } : undefined
}

/** Theirs by name, then those of the teams that they are in. */
function principalsFor({ snapshot }: Asker, principal: Principal): Principal[] {
  const parts = partsOf(principal)
  const subject = parts.kind === 'person' ? subjectOf(snapshot, parts.person) : undefined
  if (subject === undefined) return [principal]
  const teams = teamsOf(snapshot, subject.person).flatMap(({ team, lead }): Principal[] =>
    lead ? [`team:${team}`, `leads:${team}`] : [`team:${team}`],
  )
  return [principal, ...teams, ...(subject.isGuest ? [] : ['everyone' as const])]
}

function givenAt(asker: Asker, grant: Grant, about: Principal | undefined): PlacedGrantView | undefined {
  const shared = placeShared(asker, grant.node)
  if (shared === undefined) return undefined
  const { actions: held, ...place } = shared
  return {
    ...grantView(asker, grant.node, grant),
    place,
    held,
    isThrough: about !== undefined && grant.principal !== about,
  }
}

const pathView = (asker: Asker, { node, path }: Place): PathView => ({
  id: node.id,
  name: node.name,
  path: pathWords(asker, path.slice(1)),
})

/**
 * Edits that give at one place what counts at another: all that is given there, or its people, each by name with
 * what they have there. Nobody is given what they have already, and nothing more than the asker has.
 */
export function accessToCopy(asker: Asker, id: string, { from, what }: TakeOverQuery): CopiedAccessView {
  const to = visiblePlace(asker, id)
  const source = visiblePlace(asker, from)
  if (!has(to.actions, 'share') || !has(source.actions, 'share')) throw problemOf('not-found')
  const offered =
    what === 'people' ? peopleOffered(asker, source.place) : source.place.grants.map(grantOffered)
  const edits: EditRequest[] = []
  const leftOut: string[] = []
  const seen = new Set<string>()
  for (const offer of offered) {
    const key = `${offer.principal} ${offer.actions} ${offer.until ?? ''}`
    if (seen.has(key) || isThere(asker, to.place, offer)) continue
    seen.add(key)
    const { name } = principalName(asker, offer.principal)
    if (offer.principal === personPrincipal(asker.person))
      leftOut.push('You yourself: nobody raises their own access.')
    else if (holds(to.actions, offer.actions)) edits.push(editFor(to.place, offer))
    else {
      const most = intersect(to.actions, offer.actions)
      leftOut.push(`${name} gets only what you have here yourself.`)
      edits.push(editFor(to.place, { ...offer, gives: most, actions: most }))
    }
  }
  return { from: pathView(asker, source.place), edits, leftOut }
}

interface Offer {
  readonly principal: Principal
  readonly gives: Gives
  readonly actions: ActionSet
  readonly until: number | null
}

const grantOffered = ({ grant, actions }: Place['grants'][number]): Offer => ({
  principal: grant.principal,
  gives: grant.gives,
  actions,
  until: grant.until,
})

const peopleOffered = ({ snapshot }: Asker, place: Place): Offer[] =>
  who(snapshot, place.node.id).map(({ person, actions }) => ({
    principal: personPrincipal(person.id),
    gives: actions,
    actions,
    until: null,
  }))

/** Whether it would give nothing that its receiver has not got here, for as long. */
function isThere({ snapshot }: Asker, place: Place, { principal, actions, until }: Offer): boolean {
  const parts = partsOf(principal)
  if (
    parts.kind === 'person' &&
    until === null &&
    holds(check(snapshot, parts.person, place.node.id), actions)
  )
    return true
  return place.grants.some(
    each =>
      each.grant.principal === principal &&
      holds(each.actions, actions) &&
      (each.grant.until === null || (until !== null && each.grant.until >= until)),
  )
}

const editFor = ({ node }: Place, { principal, gives, until }: Offer): EditRequest => ({
  kind: 'grant.add',
  node: node.id,
  principal,
  gives,
  from: null,
  until,
})
