import type { Instant } from '#core/base/instant.ts'
import { levelActions } from '#core/levels/level.ts'
import { idOf, inDays, placeId, teamId } from './ids.ts'
import { edit, type Plan } from './plan.ts'
import { type DemoWelcomeSet, houseRules, joinLink, requests, welcomeSets } from './scenario/onboarding.ts'

/** House rules, welcome sets, a join link, and requests that nobody has answered yet. */
export const planOnboarding = (now: Instant): Plan[] => [
  {
    day: houseRules.day,
    author: houseRules.by,
    edits: [edit('workspace.change', { houseRules: houseRules.text })],
  },
  ...welcomeSets.map(set => ({
    day: set.day,
    author: set.by,
    edits: [
      edit('welcome.create', {
        welcome: idOf('welcome', set.key),
        name: set.name,
        note: set.note,
        offer: offerOf(set, now),
      }),
    ],
  })),
  {
    day: joinLink.day,
    author: joinLink.by,
    edits: [
      edit('link.create', {
        link: idOf('link', joinLink.key),
        name: joinLink.name,
        until: inDays(now, joinLink.until),
        domains: joinLink.domains,
        most: joinLink.most,
        welcome: idOf('welcome', joinLink.welcome),
        offer: { as: 'member', role: null, teams: [], places: [], from: null, until: null },
      }),
    ],
  },
  ...requests.map(({ by, team, reason, day }) => ({
    day,
    author: by,
    edits: [
      edit('request.make', {
        request: idOf('request', team, by),
        wants: { of: 'team', team: teamId(team) },
        reason,
      }),
    ],
  })),
]

const offerOf = ({ as, teams, places, until }: DemoWelcomeSet, now: Instant) => ({
  as,
  role: null,
  teams: teams.map(teamId),
  places: places.map(({ place, level }) => ({ node: placeId(place), gives: levelActions(level) })),
  from: null,
  until: inDays(now, until),
})
