import type {
  AccessView,
  ExceptionsView,
  ExceptionView,
  LimitView,
  GrantView,
  PrincipalName,
  ReachView,
  StepView,
  SumView,
  PartView,
} from '#contract/views.ts'
import { actionsGiven, type Place } from '#core/access/place.ts'
import { who } from '#core/access/who.ts'
import { rowOf, rowsBy } from '#core/base/collection.ts'
import type { NodeId, PersonId } from '#core/base/ids.ts'
import { isOver } from '#core/base/instant.ts'
import { type Part, type Step, why } from '#core/explain/why.ts'
import { has } from '#core/levels/action.ts'
import type { Grant, Limit } from '#core/rules/entry.ts'
import { personPrincipal } from '#core/rules/principal.ts'
import { pathOf, subtreeOf } from '#core/state/state.ts'
import { problemOf } from '../problem-error.ts'
import { type Asker, knowsPerson, maySee, nameOf, placeName, seenPlace } from './asker.ts'
import { principalName } from './principal.ts'

/**
 * Who has access at a place, as far as the asker may know: with share there all of it; with comment the
 * names; with less one's own line and how many can read it.
 */
export function accessView(asker: Asker, id: string): AccessView {
  const { place, actions } = seenPlace(asker, id)
  if (has(actions, 'share')) {
    return {
      detail: 'all',
      grants: grantsAt(asker, place),
      people: peopleAt(asker, place),
      limits: place.limits.map(limit => limitView(asker, place, limit)),
      ...exceptionsBelow(asker, place),
      brokenAt: place.breakAt === undefined ? null : placeName(asker, place.breakAt.id),
    }
  }
  if (has(actions, 'comment')) return { detail: 'names', names: namesAt(asker, place), mine: actions }
  const contact = asker.subject.person.contact
  return {
    detail: 'own',
    mine: actions,
    readers: who(asker.moment, place.node.id).filter(each => each.isActive).length,
    contact: contact === null ? null : nameOf(asker.moment, contact),
  }
}

/** The sum behind one person's access: one's own always, that of others where one has share. */
export function sumView(asker: Asker, id: string, person: string): SumView {
  const { place, actions } = seenPlace(asker, id)
  const isOwn = person === asker.person
  const sum =
    isOwn || has(actions, 'share') ? why(asker.moment, person as PersonId, place.node.id) : undefined
  if (sum === undefined) throw problemOf('not-found')
  const subject = rowOf(asker.moment.state.persons, sum.person)
  return {
    person: nameOf(asker.moment, sum.person),
    place: place.node.name,
    status: subject?.status ?? 'removed',
    grants: sum.grants.map(part => partView(asker, place, part)),
    keptOut: sum.keptOut.map(part => partView(asker, place, part)),
    brokenAt: sum.breakAt === null ? null : placeName(asker, sum.breakAt),
    steps: sum.steps.map(step => stepView(asker, step)),
    result: sum.result,
  }
}

/** What is given here and from above, live or still to begin; the nearest first. */
function grantsAt(asker: Asker, place: Place): GrantView[] {
  const { state, at } = asker.moment
  const reach = place.breakAt === undefined ? place.path.length : place.path.indexOf(place.breakAt) + 1
  return place.path
    .slice(0, reach)
    .flatMap(node => rowsBy(state.grants, 'node', node.id))
    .filter(grant => !isOver(grant, at))
    .map(grant => grantView(asker, place, grant))
    .sort(
      (a, b) => Number(b.isHere) - Number(a.isHere) || order(a) - order(b) || a.name.localeCompare(b.name),
    )
}

const order = (each: PrincipalName) => ['everyone', 'team', 'leads', 'member', 'guest'].indexOf(each.kind)

function grantView(asker: Asker, place: Place, grant: Grant): GrantView {
  const { moment } = asker
  return {
    ...principalName(asker, grant.principal),
    id: grant.id,
    actions: actionsGiven(moment.state, grant.gives),
    gives: grant.gives,
    at: placeName(asker, grant.node),
    isHere: grant.node === place.node.id,
    from: grant.from,
    until: grant.until,
    by: nameOf(moment, grant.by),
    since: grant.at,
    isWaiting: grant.from !== null && grant.from > moment.at,
  }
}

function limitView(asker: Asker, place: Place, limit: Limit): LimitView {
  const { id, allows, sparesStewards, until, at: since } = limit
  return {
    ...principalName(asker, limit.principal),
    id,
    allows,
    sparesStewards,
    until,
    since,
    by: nameOf(asker.moment, limit.by),
    at: placeName(asker, limit.node),
    isHere: limit.node === place.node.id,
  }
}

/** What below a place has entries of its own; to whoever shares there. */
export function exceptionsView(asker: Asker, id: string): ExceptionsView {
  const { place, actions } = seenPlace(asker, id)
  if (!has(actions, 'share')) throw problemOf('not-found')
  return { revision: asker.moment.state.revision, ...exceptionsBelow(asker, place) }
}

/** Nodes below with entries of their own: named where the asker sees them, else counted. */
function exceptionsBelow(asker: Asker, { node }: Place) {
  const { state } = asker.moment
  const below: ExceptionView[] = []
  let hiddenBelow = 0
  for (const each of subtreeOf(state, node.id)) {
    const grants = rowsBy(state.grants, 'node', each.id).length
    const limits = rowsBy(state.limits, 'node', each.id).length
    const isBroken = each.broken !== null
    if (each.id === node.id || each.binned !== null || (grants + limits === 0 && !isBroken)) continue
    if (maySee(asker, each.id)) below.push({ id: each.id, name: each.name, isBroken, grants, limits })
    else hiddenBelow += 1
  }
  // As one would meet them walking down.
  const wayTo = (each: ExceptionView) =>
    pathOf(state, each.id as NodeId)
      .map(above => above.name)
      .toReversed()
      .join(' › ')
  return { below: below.sort((a, b) => wayTo(a).localeCompare(wayTo(b))), hiddenBelow }
}

function peopleAt(asker: Asker, place: Place): ReachView[] {
  return who(asker.moment, place.node.id)
    .map(({ person, actions }) => ({
      id: person.id,
      name: nameOf(asker.moment, person.id),
      kind: person.kind,
      status: person.status,
      actions,
    }))
    .sort((a, b) => b.actions - a.actions || a.name.localeCompare(b.name))
}

function namesAt(asker: Asker, place: Place): PrincipalName[] {
  const principals = new Set(place.grants.map(each => each.grant.principal))
  principals.delete(personPrincipal(asker.person))
  return [...principals]
    .map(principal => principalName(asker, principal))
    .sort((a, b) => order(a) - order(b) || a.name.localeCompare(b.name))
}

function partView(asker: Asker, place: Place, { grant, actions, through }: Part): PartView {
  const team = 'team' in through ? rowOf(asker.moment.state.teams, through.team) : undefined
  return {
    actions,
    through: through.kind,
    team: team?.name ?? null,
    at: placeName(asker, grant.node),
    isHere: grant.node === place.node.id,
    by: knowsPerson(asker, grant.by) ? nameOf(asker.moment, grant.by) : null,
    since: grant.at,
    until: grant.until,
  }
}

function stepView(asker: Asker, step: Step): StepView {
  const at = step.kind === 'limit' ? step.limit.node : 'at' in step ? step.at : null
  return { kind: step.kind, at: at === null ? null : placeName(asker, at), leaves: step.leaves }
}
