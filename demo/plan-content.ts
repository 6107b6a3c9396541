import type { Instant } from '#core/base/instant.ts'
import type { Edit } from '#core/changes/edit.ts'
import { noActions } from '#core/levels/action.ts'
import { type BuiltInLevel, levelActions } from '#core/levels/level.ts'
import { idOf, inDays, placeId, principalOf } from './ids.ts'
import { planBoards } from './plan-boards.ts'
import { edit, type Plan } from './plan.ts'
import {
  requests,
  breaks,
  type DemoLimit,
  drafts,
  firstGrants,
  grants,
  hiddenTeam,
  limits,
  published,
} from './scenario/entries.ts'
import { founder } from './scenario/people.ts'
import { type DemoPlace, sharedHomes } from './scenario/places.ts'

/** The shared homes with their stewards, what is in them, and what was set on places later. */
export const planContent = (now: Instant): Plan[] => [
  ...sharedHomes.flatMap(planHome),
  ...grants.map((grant, index) => ({
    day: grant.day - 0.8 + (index % 7) * 0.03,
    author: grant.by,
    reason: grant.reason ?? '',
    edits: [granting({ ...grant, place: placeId(grant.place), until: inDays(now, grant.until) })],
  })),
  ...hiddenTeam.places.map((place, index) => ({
    day: hiddenTeam.day - index * 9,
    author: hiddenTeam.by,
    reason: 'Photos of the season',
    edits: hiddenTeam.people.map(to =>
      granting({ place: placeId(place), to, level: hiddenTeam.level, until: null }),
    ),
  })),
  ...breaks.map(breaking),
  ...limits.map(limit => limiting(limit, now)),
  ...published.map(({ place, web, by, day }) => ({
    day,
    author: by,
    edits: [edit('node.web', { node: placeId(place), web })],
  })),
  ...drafts.map(({ place, by, day }) => ({
    day,
    author: by,
    edits: [edit('node.state', { node: placeId(place), draft: true })],
  })),
  ...requests.map(({ place, by, level, reason, day }) => ({
    day,
    author: by,
    edits: [
      edit('request.make', {
        request: idOf('asked', place, by),
        wants: { of: 'access', node: placeId(place), actions: levelActions(level) },
        reason,
      }),
    ],
  })),
  ...planBoards(),
]

function planHome(home: DemoPlace, index: number): Plan[] {
  const id = placeId(home.name)
  const first = (firstGrants[home.name] ?? []).map(grant => granting({ ...grant, place: id, until: null }))
  const making = [edit('home.create', { node: id, name: home.name }), ...first]
  const filling = home.within.map((place, nth) => ({
    day: 228 - index - nth / 20,
    author: founder.key,
    edits: makingPlaces(place, { parent: id, key: home.name }),
  }))
  return [
    { day: 229 - index / 10, author: founder.key, reason: `${home.name} is for all of us`, edits: making },
    ...filling,
  ]
}

const breaking = ({ place, mode, by, day, reason }: (typeof breaks)[number]): Plan => ({
  day,
  author: by,
  reason,
  edits: [edit('node.break', { node: placeId(place), mode, copies: idOf('copy', place) })],
})

const limiting = ({ place, to, level, by, day, until, reason = '' }: DemoLimit, now: Instant): Plan => ({
  day,
  author: by,
  reason,
  edits: [
    edit('limit.add', {
      limit: idOf('limit', place, to),
      node: placeId(place),
      principal: principalOf(to),
      allows: level === undefined ? noActions : levelActions(level),
      sparesStewards: true,
      from: null,
      until: inDays(now, until),
    }),
  ],
})

/** A place and all that is in it, as one change set. */
export function makingPlaces(place: DemoPlace, under: { parent: string; key: string }): Edit[] {
  const path = `${under.key}/${place.name}`
  const node = placeId(path)
  const making = edit('node.create', { node, parent: under.parent, as: place.kind, name: place.name })
  return [making, ...place.within.flatMap(each => makingPlaces(each, { parent: node, key: path }))]
}

interface Giving {
  readonly place: string
  readonly to: string
  readonly level: BuiltInLevel
  readonly until: Instant | null
}

export const granting = ({ place, to, level, until }: Giving) =>
  edit('grant.add', {
    grant: idOf('grant', place, to),
    node: place,
    principal: principalOf(to),
    gives: levelActions(level),
    from: null,
    until,
  })
