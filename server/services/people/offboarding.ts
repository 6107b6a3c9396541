import type { KeptPlaceView, OffboardingView, TakenOverView } from '#contract/views/people.ts'
import { check } from '#core/access/evaluate.ts'
import { mayUse } from '#core/access/powers.ts'
import { isActive, peopleIn } from '#core/access/subject.ts'
import { allRows, rowOf, rowsBy } from '#core/base/collection.ts'
import type { MembershipId, NodeId, PersonId, TeamId } from '#core/base/ids.ts'
import { always } from '#core/base/instant.ts'
import { compareWords } from '#core/base/compare-words.ts'
import { knowsTeam, lacksTeam } from '#core/changes/context.ts'
import { lacksOver } from '#core/changes/edits/person.ts'
import { leftAlone } from '#core/changes/guards/steward-left.ts'
import { has } from '#core/levels/action.ts'
import type { Membership, Person } from '#core/people/person.ts'
import { applyChanges, type Snapshot, pathOf, type RecordChange } from '#core/state/state.ts'
import { problemOf } from '../../problem-error.ts'
import { type Asker, knowsPerson, mayOutline, maySee, nameOf, pathWords } from '../viewer/asker.ts'

/** All that somebody alone keeps, with whether the asker may say who takes it over. */
export function offboardingView(asker: Asker, id: string): OffboardingView {
  const { snapshot } = asker
  const person = rowOf(snapshot.state.persons, id as PersonId)
  const isTold = person !== undefined && (person.id === asker.person || mayEnd(asker, person.id))
  if (!isTold || !knowsPerson(asker, person.id)) throw problemOf('not-found')
  const left = placesAlone(snapshot, person)
  const alone = teamsAlone(asker, person)
  const teams = alone.filter(({ id }) => knowsTeam(snapshot, asker.person, id as TeamId))
  const places = left.filter(node => maySee(asker, node) || mayOutline(asker, node))
  const withTeam = placesWithTeams(asker, person, teams)
  return {
    teams,
    places: places
      .map(node => placeView(asker, node, withTeam.get(node) ?? null))
      .sort((a, b) => compareWords(a.name, b.name) || compareWords(a.path, b.path)),
    hasMore: places.length < left.length || teams.length < alone.length,
    guests: allRows(snapshot.state.persons)
      .filter(each => each.contact === person.id && each.status !== 'removed')
      .map(each => ({ id: each.id, name: nameOf(snapshot, each.id) })),
    links: allRows(snapshot.state.joinLinks)
      .filter(link => link.by === person.id)
      .map(link => ({ id: link.id, name: link.name })),
  }
}

/** Suspending or removing them is the asker's to do. */
function mayEnd({ snapshot, person: author }: Asker, id: PersonId): boolean {
  const context = { author, before: snapshot, now: snapshot }
  return lacksOver(context, id, 'suspend') === undefined
}

/** The topmost places without anybody to give access there once this person is gone. */
function placesAlone(snapshot: Snapshot, before: Person): NodeId[] {
  const changes: RecordChange[] = [
    { table: 'persons', id: before.id, before, after: { ...before, status: 'removed' } },
  ]
  const after = { state: applyChanges(snapshot.state, changes), at: snapshot.at }
  return leftAlone({ changes, before: snapshot, after }).filter(
    node => !pathOf(snapshot.state, node).some(each => each.home?.of === 'person'),
  )
}

/** Which of these places a team's next lead, whoever that is, would give access at. */
function placesWithTeams(
  { snapshot, person: stand }: Asker,
  person: Person,
  teams: readonly TakenOverView[],
): Map<NodeId, string> {
  const found = new Map<NodeId, string>()
  const left = placesAlone(snapshot, person)
  for (const { id } of teams) {
    // The asker stands for whoever leads it next: nothing but the lead counts.
    const membership: Membership = {
      id: 'next lead' as MembershipId,
      team: id as TeamId,
      person: stand,
      lead: true,
      since: snapshot.at,
      ...always,
    }
    const state = applyChanges(snapshot.state, [
      { table: 'memberships', id: membership.id, before: null, after: membership },
    ])
    const still = new Set(placesAlone({ state, at: snapshot.at }, person))
    for (const node of left) if (!still.has(node)) found.set(node, id)
  }
  return found
}

function placeView(asker: Asker, node: NodeId, withTeam: string | null): KeptPlaceView {
  const [place, ...above] = pathOf(asker.snapshot.state, node)
  const may = has(check(asker.snapshot, asker.person, node), 'share')
    ? 'give'
    : mayUse(asker.snapshot, asker.person, 'recover access')
      ? 'recover'
      : null
  return { id: node, name: place?.name ?? '', path: pathWords(asker, above), may, withTeam }
}

/** Teams that this person leads and no other active one does. */
function teamsAlone({ snapshot, person: author }: Asker, person: Person): TakenOverView[] {
  const context = { author, before: snapshot, now: snapshot }
  return rowsBy(snapshot.state.memberships, 'person', person.id).flatMap(({ team: id, lead }) => {
    const team = rowOf(snapshot.state.teams, id)
    if (team === undefined || !lead) return []
    const others = peopleIn(snapshot, team).filter(
      each => each.lead && each.person.id !== person.id && isActive(snapshot, each.person),
    )
    if (others.length > 0) return []
    return [{ id, name: team.name, may: lacksTeam(context, id) === undefined ? 'give' : null }]
  })
}
