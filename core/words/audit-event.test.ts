import { expect, test } from 'vitest'
import { auditEventsOf } from '../changes/audit-event.ts'
import { judge } from '../changes/judge.ts'
import type { Edit } from '../changes/edit.ts'
import { nameOfActions } from '../levels/level.ts'
import type { ActionSet } from '../levels/action.ts'
import { snapshotOf } from '../state/snapshot.ts'
import { after, edit } from '../tests/judging.ts'
import { grant, holding, member, node, now, person, team, world } from '../tests/world.ts'
import { levelActions } from '../levels/level.ts'
import { eventInWords, type EventNaming } from './audit-event.ts'

/** What was done about people, as the history tells it after its author's name. */
const naming: EventNaming = {
  place: id => id,
  person: id => id,
  team: id => id,
  principal: principal => principal.replace('person:', ''),
  where: id => id,
  level: gives => nameOfActions(gives as ActionSet).name,
  role: role => role.replace('role-', ''),
  through: until => `day ${until - now}`,
  since: from => (from === null ? 'at once' : `on day ${from - now}`),
}
const offer = { as: 'member', role: null, teams: [], places: [], from: null, until: null }
const inviting = edit('person.invite', {
  person: 'new',
  invitation: 'i',
  holding: 'h',
  mail: 'new@x.example',
  name: 'new',
  as: 'guest',
  role: null,
  scope: { over: 'workspace' },
  until: null,
  linkUntil: now + 9,
  message: '',
  profile: { handle: 'newt' },
})
const start = world(
  person('ada'),
  holding('ada', 'role-owner'),
  person('ben'),
  holding('ben', 'role-member'),
  person('gus', { kind: 'guest', contact: 'ada' as never }),
  holding('gus', 'role-guest'),
  team('boats'),
  member('boats', 'ada', { lead: true }),
  node('home', 'root'),
  grant('home', 'person:ada', levelActions('Steward')),
  grant('home', 'person:gus', levelActions('Reader')),
)
const requested = after(
  start,
  'ben',
  edit('request.make', { request: 'r', wants: { of: 'team', team: 'boats' }, reason: '' }),
)
const linked = after(
  requested,
  'ada',
  edit('link.create', {
    link: 'l',
    name: 'Beach day',
    until: now + 9,
    domains: [],
    most: null,
    welcome: null,
    offer,
  }),
)
const state = after(
  linked,
  'ada',
  edit('welcome.create', { welcome: 'w', name: 'Winter', note: '', offer }),
  inviting,
)

const wordsFor = (who: string, ...edits: Edit[]) => {
  const result = judge(snapshotOf(state, now), { author: who as never, reason: '', edits })
  if (!result.ok) throw new Error(JSON.stringify(result.error))
  return auditEventsOf(state, result.value.changes).map(event => eventInWords(state, event, naming))
}
const answering = (accepted: boolean) =>
  accepted
    ? edit('request.accept', { request: 'r', gives: { of: 'team', membership: 'm' }, comment: '' })
    : edit('request.decline', { request: 'r', comment: '' })
const setting = (fields: object) => edit('workspace.change', fields)

test.each<[string, string, Edit[], string[]]>([
  [
    'somebody asks',
    'ada',
    [edit('team.change', { team: 'boats', note: 'x' })],
    ['changed the team boats: the description'],
  ],
  [
    'a request is taken back',
    'ben',
    [edit('request.withdraw', { request: 'r' })],
    ['closed the request of ben to join boats'],
  ],
  ['somebody is let in', 'ada', [answering(true)], ['added ben to boats']],
  ['somebody is not', 'ada', [answering(false)], ['declined the request of ben to join boats']],
  [
    'a profile',
    'ben',
    [edit('person.describe', { person: 'ben', handle: 'benny', title: 'Skipper' })],
    ['changed the profile of ben: the handle and the title'],
  ],
  [
    'a contact',
    'ada',
    [edit('person.contact', { person: 'gus', contact: 'ben' })],
    ['changed the contact of gus'],
  ],
  [
    'an offer',
    'ada',
    [edit('invitation.change', { person: 'new', from: now + 3 })],
    ['changed when the access of new starts: on day 3'],
  ],
  [
    'an end of an offer',
    'ada',
    [edit('invitation.change', { person: 'new', until: now + 4 })],
    ['changed when the access of new ends: day 4'],
  ],
  [
    'an invitation withdrawn',
    'ada',
    [edit('invitation.withdraw', { person: 'new' })],
    ['withdrew the invitation of new'],
  ],
  [
    'a link widened',
    'ada',
    [edit('link.change', { link: 'l', most: 3 })],
    ['changed the join link Beach day: how many people it accepts'],
  ],
  ['a link withdrawn', 'ada', [edit('link.withdraw', { link: 'l' })], ['withdrew the join link Beach day']],
  [
    'a set changed',
    'ada',
    [edit('welcome.change', { welcome: 'w', note: 'x' })],
    ['changed the welcome set Winter: the description'],
  ],
  ['a set deleted', 'ada', [edit('welcome.delete', { welcome: 'w' })], ['withdrew the welcome set Winter']],
  ['somebody leaves', 'ada', [edit('person.remove', { person: 'gus' })], ['removed gus from the workspace']],
  ['the name', 'ada', [setting({ name: 'Inland' })], ['renamed the workspace to Inland']],
  [
    'several settings at once',
    'ada',
    [setting({ timeZone: 'UTC+1', invitationDays: 3 })],
    ['set the time zone to UTC+1, set invitations to work for 3 days'],
  ],
  [
    'when a sign-in ends',
    'ada',
    [setting({ signInDays: 1, idleHours: 8 })],
    ['set sign-ins to end after 1 day, set sign-ins to end after 8 hours without use'],
  ],
  ['the ceiling', 'ada', [setting({ guestCeiling: levelActions('Reader') })], ['limited guests to Reader']],
  ['publishing', 'ada', [setting({ allowsPublishing: false })], ['turned publishing off']],
  [
    'domains',
    'ada',
    [setting({ guestDomains: ['a.example'] })],
    ['allowed guests with an address of a.example'],
  ],
  ['the house rules', 'ada', [setting({ houseRules: 'x' })], ['changed the house rules']],
  [
    'the second step',
    'ada',
    [setting({ twoStepFor: ['role-owner'] })],
    ['required two-step sign-in for owner'],
  ],
  [
    'the usual role',
    'ada',
    [setting({ defaultRole: 'role-people-lead' })],
    ['made people-lead the role of new members'],
  ],
])('%s is told', (_what, who, edits, words) => {
  expect(wordsFor(who, ...edits)).toEqual(words)
})

test('coming in by a link is told as one invitation, with what goes along left out', () => {
  const coming = edit('person.invite', {
    ...inviting,
    person: 'two',
    mail: 'two@x.example',
    invitation: 'i2',
    holding: 'h2',
    as: 'member',
    profile: {},
  })
  expect(wordsFor('ada', coming, edit('link.use', { link: 'l', mail: 'two@x.example' }))).toEqual([
    'invited two as a member',
  ])
})
