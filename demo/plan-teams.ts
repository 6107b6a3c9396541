import { idOf, personId, principalOf, teamId } from './ids.ts'
import { granting, makingPlaces } from './plan-content.ts'
import { edit, type Plan } from './plan.ts'
import { founder, people } from './scenario/people.ts'
import { teamPlaces } from './scenario/places.ts'
import { type DemoTeam, teams } from './scenario/teams.ts'

/** Each team is made with its first lead; the others follow when they are here; then comes its content. */
export const planTeams = (): Plan[] =>
  teams.flatMap(team => {
    const [first = founder.key, ...otherLeads] = team.leads
    const later = [
      ...otherLeads.map(key => joining(team, key, true)),
      ...team.people.map(key => joining(team, key, false)),
    ]
    const places = (teamPlaces[team.key] ?? []).map((place, index) => ({
      day: team.day - 2 - index,
      author: first,
      edits: makingPlaces(place, { parent: homeOf(team), key: team.key }),
    }))
    const { archived } = team
    const archiving = edit('team.archive', { team: teamId(team.key), archived: true })
    const end = archived === undefined ? [] : [{ ...archived, author: archived.by, edits: [archiving] }]
    return [making(team, first), ...later, ...places, ...channels(team, first), ...end]
  })

const channels = (team: DemoTeam, author: string): Plan[] =>
  team.channels.length === 0
    ? []
    : [{ day: 112 - team.day / 100, author, edits: team.channels.map(each => creatingChannel(team, each)) }]

const creatingChannel = ({ key }: DemoTeam, { name, only }: DemoTeam['channels'][number]) =>
  edit('channel.create', {
    channel: idOf('channel', key, name),
    team: teamId(key),
    name,
    note: '',
    only: only?.map(principalOf) ?? null,
  })

const homeOf = (team: DemoTeam): string => idOf('node', 'home', team.key)

const making = (team: DemoTeam, lead: string): Plan => ({
  day: team.day,
  author: founder.key,
  reason: `${team.name} is set up`,
  edits: [
    edit('team.create', {
      team: teamId(team.key),
      home: homeOf(team),
      name: team.name,
      note: team.note,
      joining: team.joining,
      welcomesGuests: team.welcomesGuests,
    }),
    membership(team, lead, true),
    granting({ place: homeOf(team), to: `leads:${team.key}`, level: 'Steward', until: null }),
    granting({ place: homeOf(team), to: `team:${team.key}`, level: 'Adder', until: null }),
    creatingChannel(team, { name: 'general' }),
  ],
})

const joining = (team: DemoTeam, key: string, lead: boolean): Plan => ({
  day: Math.min(team.day, people.find(each => each.key === key)?.day ?? team.day) - 1,
  author: founder.key,
  edits: [membership(team, key, lead)],
})

const membership = (team: DemoTeam, key: string, lead: boolean) =>
  edit('member.add', {
    membership: idOf('in', team.key, key),
    team: teamId(team.key),
    person: personId(key),
    lead,
    from: null,
    until: null,
  })
