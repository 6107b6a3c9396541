import type { Instant } from '#core/base/instant.ts'
import { foundWorkspace } from '#core/changes/found.ts'
import { type ChangeSet, judge, type Judged } from '#core/changes/judge.ts'
import { momentOf } from '#core/state/moment.ts'
import { atRevision, type State } from '#core/state/state.ts'
import { daysAgo, idOf, personId } from './ids.ts'
import { placeId, planContent } from './plan-content.ts'
import { planPeople } from './plan-people.ts'
import { planTeams } from './plan-teams.ts'
import { founder, mailOf, people } from './scenario/people.ts'
import { type DemoPlace, sharedHomes } from './scenario/places.ts'

/** A change set of the demo with the moment at which it was made. */
export interface Made {
  readonly changeSet: ChangeSet
  readonly judged: Judged
  readonly at: Instant
}

export interface DemoText {
  readonly node: string
  readonly text: string
  readonly by: string
}

export const demoSlug = 'marram-coast-survey'
const foundedDaysAgo = 270

/**
 * The demo workspace, made as people would make it: change sets of the core, each judged, dated back
 * from `now`. The same `now` gives the same workspace. Throws where the scenario breaks a rule of the
 * core: then the scenario is wrong.
 */
export function generateDemo(now: Instant): { readonly sets: readonly Made[]; readonly state: State } {
  const at = daysAgo(now, foundedDaysAgo)
  const judged = foundWorkspace(founding(at))
  let state = atRevision(judged.state, 1)
  const author = founding(at).owner.person
  const sets: Made[] = [{ changeSet: { author, reason: 'The workspace is created', edits: [] }, judged, at }]
  const plans = [...planPeople(now), ...planTeams(), ...planContent(now)].sort((a, b) => b.day - a.day)
  for (const { author, reason = '', edits, day } of plans) {
    const changeSet: ChangeSet = { author: personId(author) as ChangeSet['author'], reason, edits }
    const moment = momentOf(state, daysAgo(now, day))
    const result = judge(moment, changeSet)
    if (!result.ok) throw new Error(`${author} may not: ${JSON.stringify([result.error, edits])}`)
    state = atRevision(result.value.state, state.revision + 1)
    sets.push({ changeSet, judged: result.value, at: moment.at })
  }
  return { sets, state }
}

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
      mail: mailOf(founder.key),
      folder: idOf('node', 'private', founder.key),
      grant: idOf('grant', 'private', founder.key),
    },
  }) as unknown as Parameters<typeof foundWorkspace>[0]

/** Everybody who has come in signs in with an account of their own. */
export const demoAccounts = [founder, ...people.filter(person => !person.isInvited)].map(({ key, name }) => ({
  id: idOf('account', key),
  name,
  mail: mailOf(key),
}))

/** What is written on the pages. */
export const demoTexts: readonly DemoText[] = sharedHomes.flatMap(home => textsIn(home, ''))

function textsIn(place: DemoPlace, above: string): DemoText[] {
  const path = `${above}${place.name}`
  const own =
    place.text === undefined ? [] : [{ node: placeId(path), text: place.text, by: personId(founder.key) }]
  return [...own, ...place.within.flatMap(each => textsIn(each, `${path}/`))]
}
