import type { NodeId, PersonId } from '#core/base/ids.ts'
import type { Instant } from '#core/base/instant.ts'
import { provisionWorkspace } from '#core/changes/provisioning.ts'
import type { Transition } from '#core/changes/affected-scope.ts'
import { type ChangeSet, judge } from '#core/changes/judge.ts'
import { scheduledTransitionsOf, theWorkspace } from '#core/changes/scheduled.ts'
import { snapshotOf } from '#core/state/snapshot.ts'
import { emptyState } from '#core/records/all.ts'
import { atRevision, type Snapshot, type State } from '#core/state/state.ts'
import { idOf, personId, placeId, workdaysAgo } from './ids.ts'
import { planContent } from './plan-content.ts'
import { planSampleActivity } from './sample-activity.ts'
import { handleOf, planPeople } from './plan-people.ts'
import { planOnboarding } from './plan-onboarding.ts'
import { planRoles } from './plan-roles.ts'
import { planTeams } from './plan-teams.ts'
import type { LatePlan, Plan } from './plan.ts'
import { firstGrants } from './scenario/entries.ts'
import { founder, mailOf, people } from './scenario/people.ts'
import { type DemoPlace, sharedHomes } from './scenario/places.ts'

/** An entry of the demo's history: a change set, or a start or end that passed. */
export interface Made extends ChangeSet {
  readonly transition: Transition
  /** The workspace with it, at the instant at which it was made. */
  readonly after: Snapshot
}

export interface DemoText {
  readonly node: NodeId
  readonly text: string
  readonly by: PersonId
}

export const demoSlug = 'marram-coast-survey'
const foundedDaysAgo = 270

/**
 * The demo workspace, made as people would make it: change sets of the core, each judged, dated back
 * from `now`. The same `now` gives the same workspace. Throws where the scenario breaks a rule of the
 * core: then the scenario is wrong.
 */
export function generateDemo(now: Instant): { readonly sets: readonly Made[]; readonly state: State } {
  const at = workdaysAgo(now, foundedDaysAgo)
  const judged = provisionWorkspace(emptyState, founding(at))
  let last = snapshotOf(atRevision(judged.state, 1), at)
  const author = founding(at).owner.person
  const sets: Made[] = []
  const add = (set: ChangeSet, transition: Omit<Transition, 'after'>, { state, at }: Snapshot) => {
    last = snapshotOf(atRevision(state, sets.length + 1), at)
    sets.push({ ...set, transition: { ...transition, after: last }, after: last })
  }
  const first = { author, reason: 'The workspace is created', edits: [] }
  add(first, { changes: judged.changes, before: snapshotOf(emptyState, at) }, last)
  const pass = (until: Instant) => {
    for (const { transition, state, at } of scheduledTransitionsOf(last.state, last.at, until))
      add({ author: theWorkspace, reason: '', edits: [] }, transition, { state, at })
  }
  for (const each of plansOf(now)) {
    const at = workdaysAgo(now, each.day)
    pass(at)
    const before = snapshotOf(last.state, at)
    const plan = 'plan' in each ? each.plan(before) : each
    if (plan === undefined) continue
    const { author, reason = '', edits } = plan
    const changeSet: ChangeSet = { author: personId(author) as ChangeSet['author'], reason, edits }
    const result = judge(before, changeSet)
    // A step that hangs on chance may be refused, as people's are; one of the tables may not.
    if (!result.ok && 'plan' in each) continue
    if (!result.ok) throw new Error(`${author} may not: ${JSON.stringify([result.error, edits])}`)
    const { changes, state } = result.value
    add(changeSet, { changes, before }, { state, at: before.at })
  }
  pass(now)
  return { sets, state: last.state }
}

const plansOf = (now: Instant): (Plan | LatePlan)[] =>
  [
    ...planPeople(now),
    ...planTeams(),
    ...planRoles(),
    ...planOnboarding(now),
    ...planContent(now),
    ...planSampleActivity(),
  ].sort((a, b) => b.day - a.day)

const founding = (at: Instant) =>
  ({
    workspace: 'workspace-marram',
    name: 'Marram Coast Survey',
    slug: demoSlug,
    timeZone: 'Europe/London',
    at,
    root: 'node-root',
    owner: {
      person: personId(founder.key),
      account: idOf('account', founder.key),
      holding: idOf('holding', founder.key),
      name: founder.name,
      handle: handleOf(founder.name),
      mail: mailOf(founder.key),
      folder: idOf('node', 'private', founder.key),
      grant: idOf('grant', 'private', founder.key),
    },
  }) as unknown as Parameters<typeof provisionWorkspace>[1]

/** Everybody who has come in signs in with an account of their own. */
export const demoAccounts = [founder, ...people.filter(person => !person.isInvited)].map(({ key, name }) => ({
  id: idOf('account', key),
  name,
  mail: mailOf(key),
}))

/** What is written on the pages. */
export const demoTexts: readonly DemoText[] = sharedHomes.flatMap(home =>
  textsIn(home, { above: '', by: firstGrants[home.name]?.[0]?.to ?? founder.key }),
)

/** Written by whoever answers for the home. */
function textsIn(
  place: DemoPlace,
  { above, by }: { readonly above: string; readonly by: string },
): DemoText[] {
  const path = `${above}${place.name}`
  const own =
    place.text === undefined
      ? []
      : [{ node: placeId(path) as NodeId, text: place.text, by: personId(by) as PersonId }]
  return [...own, ...place.within.flatMap(each => textsIn(each, { above: `${path}/`, by }))]
}
