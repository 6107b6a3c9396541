import { mkdirSync, writeFileSync } from 'node:fs'
import { resolve } from 'node:path'
import { demoPassword } from '#demo/scenario/people.ts'
import { startDemo } from '../e2e/server.ts'
import { Visitor } from '../e2e/visitor.ts'

/** One picture of each main view at 1280×800, made from the demo: npm run screenshots [name …]. */
const at = '/at/marram-coast-survey'
const folder = resolve(import.meta.dirname, '../docs/screenshots')

interface Shot {
  readonly name: string
  readonly who: string
  readonly path: string
  readonly theme?: 'dark'
  /** Until this is seen the view is not ready. */
  readonly sees: string
  readonly act?: (visitor: Visitor) => Promise<void>
}

const owner = 'ilse@marram.example'
/** In which month most of the season lies. */
const soon = new Date(Date.now() + 10 * 86_400_000).toISOString().slice(0, 10)
/** Where the owner was before. */
const visited = {
  'person-ilse': ['node-sites-north-spit', 'node-tide-safety', 'node-season-plan', 'node-funder-report'],
}
const openNodes = { 'node-sites': true, 'node-sites-north-spit': true, 'node-season-plan': true }

const shots: readonly Shot[] = [
  {
    name: 'content',
    who: 'tomas@marram.example',
    path: `${at}/content/node-sites-north-spit`,
    sees: 'below differ',
    act: visitor => visitor.pressRow('below differ'),
  },
  {
    name: 'table',
    who: owner,
    path: `${at}/content/node-permits-and-consents-permits`,
    sees: 'Drone flights',
  },
  {
    name: 'lanes',
    who: owner,
    path: `${at}/content/node-permits-and-consents-permits?as=lanes`,
    theme: 'dark',
    sees: 'Drone flights',
  },
  {
    name: 'calendar',
    who: owner,
    path: `${at}/content/node-season-plan-calendar?as=calendar&on=${soon}`,
    sees: 'Roost count',
  },
  {
    name: 'row',
    who: owner,
    path: `${at}/content/node-boats-kit-loans?row=node-boats-kit-loans-spotting-scope-3`,
    theme: 'dark',
    sees: 'Comments',
  },
  {
    name: 'break',
    who: owner,
    path: `${at}/content/node-sites-harrow-creek`,
    sees: 'Break inheritance …',
    act: async visitor => {
      await visitor.press('Break inheritance …')
      await visitor.tick('Start empty: keep only the grants on this place, and yourself')
      await visitor.press('Show details')
      await visitor.sees('by place')
    },
  },
  {
    name: 'check',
    who: owner,
    path: `${at}/oversight/check`,
    theme: 'dark',
    sees: 'Start outline access',
    act: async visitor => {
      await visitor.fill('Reason for outline access', 'The board asks who can open Nest Locations')
      await visitor.press('Start outline access')
      await visitor.pick('Place', 'Nest Locations')
      await visitor.follow('Why not?')
      await visitor.sees('can do this')
    },
  },
  {
    name: 'share',
    who: owner,
    path: `${at}/content/node-sites-gull-sands-drone-flights`,
    theme: 'dark',
    sees: 'Bram Ostler',
    act: async visitor => {
      await visitor.pick('Share with a person, team or address', 'Henrik Maas')
      await visitor.fillDay('Ends after', '2027-03-31')
    },
  },
  {
    name: 'arrival',
    who: owner,
    path: `${at}/content`,
    theme: 'dark',
    sees: 'Where you were',
  },
  {
    name: 'offboarding',
    who: owner,
    path: `${at}/people/person-joss`,
    sees: 'Remove …',
    act: async visitor => {
      await visitor.press('Remove …')
      await visitor.sees('loses all access')
      await visitor.press('Show details')
    },
  },
  {
    name: 'guest',
    who: 'sefa@lund-estate.example',
    path: `${at}/content/node-sites-north-spit-access-notes`,
    sees: 'Who else has access',
  },
  { name: 'people', who: owner, path: `${at}/people?as=member`, sees: 'Last active' },
  {
    name: 'person',
    who: owner,
    path: `${at}/people/person-sefa?as=guest`,
    sees: 'Contact',
    act: async visitor => {
      await visitor.press('Why: Access Notes')
      await visitor.sees('by name, on this place')
    },
  },
  {
    name: 'invite',
    who: owner,
    path: `${at}/people/invite`,
    sees: 'Message',
    act: async visitor => {
      await visitor.paste(
        'Mail addresses',
        'Fenna Wilde <fenna@marram.example>, aino@marram.example; kit@maram.example\njon@',
      )
      await visitor.choose('Welcome set', 'Winter helpers')
      await visitor.sees('seats needed')
    },
  },
  {
    name: 'history',
    who: owner,
    path: `${at}/oversight/history?category=sharing`,
    sees: 'gave',
    act: async visitor => {
      await visitor.pressRow('Sefa Lund')
      await visitor.press('Undo …')
      await visitor.sees('Add a reason')
    },
  },
  {
    name: 'files',
    who: owner,
    path: `${at}/content/node-permits-and-consents-letter-0la2yvi`,
    sees: 'Page 1 of 2',
    act: async visitor => {
      await visitor.press('Versions')
      await visitor.tick('Show version 1')
      await visitor.tick('Show version 2')
      await visitor.sees('Version 2')
      await visitor.driver.sleep(1500)
    },
  },
  {
    name: 'search',
    who: owner,
    path: `${at}/search?find=tide`,
    theme: 'dark',
    sees: 'Tide Safety',
  },
  { name: 'teams', who: owner, path: `${at}/teams/team-birds`, sees: '1 request to join' },
  { name: 'roles', who: owner, path: `${at}/roles/role-auditor`, sees: 'What people with this role can do' },
]

const wanted = process.argv.slice(2)
mkdirSync(folder, { recursive: true })
const server = await startDemo()
let visitor: Visitor | undefined
let signedIn = ''
try {
  for (const shot of shots.filter(each => wanted.length === 0 || wanted.includes(each.name))) {
    if (visitor === undefined || shot.who !== signedIn) {
      await visitor?.close()
      visitor = await Visitor.arrive(server.address)
      await visitor.signIn(shot.who, demoPassword)
      signedIn = shot.who
    }
    await take(visitor, shot)
  }
} finally {
  await visitor?.close()
  await server.stop()
}

async function take(visitor: Visitor, shot: Shot): Promise<void> {
  await visitor.chooseView({ theme: shot.theme ?? 'light', openNodes, visited })
  await visitor.open(shot.path)
  await visitor.sees(shot.sees)
  await shot.act?.(visitor)
  await visitor.driver.sleep(400)
  writeFileSync(
    resolve(folder, `${shot.name}.png`),
    Buffer.from(await visitor.driver.takeScreenshot(), 'base64'),
  )
  process.stdout.write(`${shot.name}.png\n`)
}
