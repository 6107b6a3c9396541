import { invitingEdits } from '#contract/inviting.ts'
import type { OfferPreviewRequest } from '#contract/requests.ts'
import type { OfferView } from '#contract/views/onboarding.ts'
import { seatsTaken, takesSeat } from '#core/access/seats.ts'
import { subjectOf, teamsOf, type Subject } from '#core/access/subject.ts'
import { rowOf, rowsBy } from '#core/base/collection.ts'
import type { PersonId } from '#core/base/ids.ts'
import { refused } from '#core/base/result.ts'
import { judge } from '#core/changes/judge.ts'
import type { Person } from '#core/people/person.ts'
import { snapshotOf } from '#core/state/snapshot.ts'
import { applyChanges, workspaceOf, type Snapshot, type State } from '#core/state/state.ts'
import type { Parts } from '../../parts.ts'
import { problemOf } from '../../problem-error.ts'
import { heldBy, reachedBy } from '../access/accessible-places.ts'
import { type Asker, readerAt } from '../viewer/asker.ts'
import { mintingFor, problemFrom } from '../changes/change-set.ts'
import { editFrom } from '../changes/edits.ts'
import { unknownIn } from '../changes/known-ids.ts'
import { mayAskOf } from '../viewer/questions.ts'
import { visiblePlaces } from '../../worker/by-id.ts'

/** What somebody who takes an offer could see and do, put together as if they were here. */
export async function offerView(
  parts: Parts,
  asker: Asker,
  { offer, scope }: OfferPreviewRequest,
): Promise<OfferView> {
  const before = snapshotOf(asker.snapshot.state, parts.clock())
  const made = new Map<string, string>()
  const workspace = workspaceOf(before.state)
  const minting = mintingFor(parts, before.state, made)
  const mail = `somebody@${welcomeDomain(before.state, offer.as)}`
  const somebody = { person: 'new:somebody', mail, name: 'Somebody' }
  const requests = invitingEdits(offer, { ...somebody, ...(scope === undefined ? {} : { scope }) })
  const edits = requests.map(each => editFrom(each, minting))
  const unknown = requests.flatMap(each => unknownIn(asker, each) ?? [])[0]
  const judged =
    unknown === undefined
      ? judge(before, { author: asker.person, reason: '', edits })
      : refused({ refusal: unknown, edit: null })
  const bought = workspace.seats
  if (!judged.ok)
    return {
      places: [],
      privileges: [],
      asleep: [],
      role: '',
      teams: [],
      seats: { taken: seatsTaken(before), bought, each: 0 },
      problem: problemFrom(judged.error, asker),
    }
  const id = made.get('new:somebody') as PersonId
  const { snapshot, subject } = asIfHere(snapshotOf(judged.value.state, before.at), id)
  const reader = readerAt(asker.workspace, snapshot, asker.person) ?? asker
  return {
    places: await reachedBy(reader, subject, {
      visible: await visiblePlaces(parts.thread, { ...reader, person: id }),
      mayTell: node => mayAskOf(reader, id, node),
    }),
    ...roleOf(snapshot, id),
    teams: teamsOf(snapshot, subject.person).map(each => rowOf(snapshot.state.teams, each.team)?.name ?? ''),
    seats: { taken: seatsTaken(snapshot), bought, each: takesSeat(snapshot, subject.person) ? 1 : 0 },
    problem: null,
  }
}

/** A mail domain from which such people may come. */
export function welcomeDomain(state: State, as: Person['kind']): string {
  const { guestDomains, memberDomains } = workspaceOf(state)
  return (as === 'guest' ? guestDomains : memberDomains)[0] ?? 'newcomer.invalid'
}

export function asIfHere({ state, at }: Snapshot, id: PersonId): { snapshot: Snapshot; subject: Subject } {
  const before = rowOf(state.persons, id)
  if (before === undefined) throw problemOf('not-found')
  const after = { ...before, status: 'active', from: null } as const
  const snapshot = snapshotOf(applyChanges(state, [{ table: 'persons', id, before, after }]), at)
  const subject = subjectOf(snapshot, id)
  if (subject === undefined) throw problemOf('not-found')
  return { snapshot, subject }
}

export function roleOf(
  { state }: Snapshot,
  person: PersonId,
): Pick<OfferView, 'role' | 'privileges' | 'asleep'> {
  const [holding] = rowsBy(state.holdings, 'person', person)
  const role = holding === undefined ? undefined : rowOf(state.roles, holding.role)
  if (holding === undefined || role === undefined) return { role: '', privileges: [], asleep: [] }
  return { role: role.name, ...heldBy(role, holding) }
}
