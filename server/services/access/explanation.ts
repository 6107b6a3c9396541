import type { ExplanationView, PartView, StepView, WayView } from '#contract/views/explanation.ts'
import { actionsAsIfActive } from '#core/access/evaluate.ts'
import { givenTo, holdsBack } from '#core/access/matching.ts'
import { type Place, placeOf } from '#core/access/place.ts'
import { subjectOf } from '#core/access/subject.ts'
import { rowOf } from '#core/base/collection.ts'
import type { PersonId } from '#core/base/ids.ts'
import { type Part, type Step, why } from '#core/explain/why.ts'
import { type ActionSet, everyAction, intersect, union } from '#core/levels/action.ts'
import { knowsTeam } from '#core/changes/context.ts'
import { problemOf } from '../../problem-error.ts'
import { type Asker, holdsAt, knowsPerson, nameOf, placeName } from '../viewer/asker.ts'
import { askedPlace, mayAskOf } from '../viewer/questions.ts'

/** The sum behind one person's access: one's own always, that of others where one may ask of it. */
export function explanationView(asker: Asker, id: string, person: string): ExplanationView {
  const { place } = askedPlace(asker, id)
  const sum = mayAskOf(asker, person as PersonId, place.node.id)
    ? why(asker.snapshot, person as PersonId, place.node.id)
    : undefined
  if (sum === undefined) throw problemOf('not-found')
  const subject = rowOf(asker.snapshot.state.persons, sum.person)
  return {
    person: nameOf(asker.snapshot, sum.person),
    place: place.node.name,
    status: subject?.status ?? 'removed',
    grants: sum.grants.map(part => partView(asker, place, part)),
    keptOut: sum.keptOut.map(part => partView(asker, place, part)),
    brokenAt: sum.breakAt === null ? null : placeName(asker, sum.breakAt),
    steps: sum.steps.map(step => stepView(asker, step)),
    result: sum.result,
    way: wayOf(asker, sum.person, place),
  }
}

/**
 * The way from the whole workspace down to a place: what a person has on each place of it, what is given to them
 * there, what a limit there leaves. Places that the asker cannot see are one.
 */
function wayOf(asker: Asker, person: PersonId, { path }: Place): WayView[] {
  const { snapshot } = asker
  const subject = subjectOf(snapshot, person)
  const way: WayView[] = []
  if (subject === undefined) return way
  for (const node of path.toReversed()) {
    const place = placeOf(snapshot, node.id)
    if (place === undefined) continue
    const here = place.grants.filter(each => each.grant.node === node.id)
    const limits = place.limits.filter(
      each => each.node === node.id && holdsBack(each, subject, givenTo(subject, place.grants)),
    )
    const step: WayView = {
      place: placeName(asker, node.id),
      actions: actionsAsIfActive(snapshot, subject, place),
      isBroken: node.broken !== null,
      given: givenTo(subject, here),
      allows:
        limits.length === 0
          ? null
          : limits.reduce<ActionSet>((left, each) => intersect(left, each.allows), everyAction),
    }
    const last = way.at(-1)
    if (last !== undefined && last.place === null && step.place === null)
      way[way.length - 1] = asOne(last, step)
    else way.push(step)
  }
  return way
}

const asOne = (upper: WayView, lower: WayView): WayView => ({
  place: null,
  actions: lower.actions,
  isBroken: upper.isBroken || lower.isBroken,
  given: union(upper.given as ActionSet, lower.given as ActionSet),
  allows:
    upper.allows === null || lower.allows === null
      ? (upper.allows ?? lower.allows)
      : intersect(upper.allows as ActionSet, lower.allows as ActionSet),
})

function partView(asker: Asker, place: Place, { grant, actions, through }: Part): PartView {
  const team = 'team' in through ? rowOf(asker.snapshot.state.teams, through.team) : undefined
  // Whoever shares there knows whom it is given to; whoever only checks need not know an unlisted team.
  const isTold =
    team === undefined ||
    knowsTeam(asker.snapshot, asker.person, team.id) ||
    holdsAt(asker, place.node.id, 'share')
  return {
    actions,
    through: through.kind,
    team: team === undefined ? null : isTold ? team.name : 'that you do not know',
    at: placeName(asker, grant.node),
    isHere: grant.node === place.node.id,
    by: knowsPerson(asker, grant.by) ? nameOf(asker.snapshot, grant.by) : null,
    since: grant.at,
    until: grant.until,
  }
}

function stepView(asker: Asker, step: Step): StepView {
  const at = step.kind === 'limit' ? step.limit.node : 'at' in step ? step.at : null
  return { kind: step.kind, at: at === null ? null : placeName(asker, at), leaves: step.leaves }
}
