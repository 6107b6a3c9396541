import { afterAll, beforeAll, expect, test } from 'vitest'
import { operationNames, operations } from '#contract/operations.ts'
import { type OwnerOfDemo, ownerOfDemo } from './stage.ts'
import type { Visitor } from './visitor.ts'

/** What others do is asked for where it shows, and nothing else: on each kind of page, each act is so many requests. */
const at = '/at/marram-coast-survey'
const creek = 'node-sites-harrow-creek'
const method = `${creek}-method`
let demo: OwnerOfDemo
let owner: Visitor
let other: Visitor

beforeAll(async () => {
  demo = await ownerOfDemo()
  ;({ owner } = demo)
  other = await demo.welcome('tomas@marram.example')
})

afterAll(() => demo.leave())

/** Asks the server from the other one's browser. */
async function ask<T>(verb: string, path: string, body: object | null = null): Promise<T> {
  const { status, answer } = await other.driver.executeAsyncScript<{ status: number; answer: T }>(
    `const [verb, path, body, done] = arguments
     fetch('/api/session').then(answer => answer.json()).then(({ csrf }) =>
       fetch('/api' + path, {
         method: verb,
         headers: { 'content-type': 'application/json', 'x-noskel-csrf': csrf },
         ...(body === null ? {} : { body: JSON.stringify(body) }),
       })).then(async answer => done({ status: answer.status, answer: await answer.json() }))`,
    verb,
    `${at}${path}`,
    body,
  )
  if (status !== 200) throw new Error(JSON.stringify(answer))
  return answer
}

const people = [
  ...['aino', 'pilar', 'edda', 'maren', 'mercy', 'amadi', 'wiebke', 'joss', 'ravi', 'hedvig'],
  'davit',
]
const grant = (node: string, person: string) => ({
  kind: 'grant.add',
  node,
  principal: `person:person-${person}`,
  gives: 7,
  from: null,
  until: null,
})

/** What the other one does, for the so manieth time; and of what the owner hears then at least. */
const acts = {
  'a page is written': async () => {
    const { version } = await ask<{ version: number }>('GET', `/nodes/${method}/text`)
    await ask('PUT', `/nodes/${method}/text`, { text: `Written anew ${version}`, version })
    return `document:${method}`
  },
  'somebody is given access': async (turn: number) => {
    await ask('POST', '/changes', { edits: [grant(creek, people[turn] ?? '')] })
    return 'access'
  },
  'a word is sent': async () => {
    const { draft } = await ask<{ draft: { id: string } }>('POST', '/drafts', {
      edits: [grant(creek, 'sefa')],
    })
    await ask('POST', `/drafts/${draft.id}/handover`, { to: 'person-ilse', comment: 'Would you look?' })
    return 'notifications'
  },
} as const

const paths = operationNames.map(
  name => [name, new RegExp(`^/api${operations[name][1].replaceAll(/\{\w+\}/g, '[^/?]+')}$`)] as const,
)
const operationAt = (address: string) => {
  const { pathname } = new URL(address)
  return paths.find(([, pattern]) => pattern.test(pathname))?.[0] ?? pathname
}

/** What the owner's page asks for from here on, and what it hears. */
const listen = () =>
  owner.driver.executeScript(
    `performance.clearResourceTimings()
     window.heard = []
     window.listening?.close()
     window.listening = new BroadcastChannel('noskel live marram-coast-survey')
     window.listening.onmessage = ({ data }) => window.heard.push(...data.topics ?? [])`,
  )

/** Resolves once nothing more is asked for, to all that was. */
const quiet = () =>
  owner.driver.executeAsyncScript<string[]>(
    `const [done] = arguments
     const asked = () => performance.getEntriesByType('resource').filter(({ name }) => name.includes('/api/')).map(({ name }) => name)
     let before = -1
     const look = () => {
       const names = asked()
       if (names.length === before) done(names)
       else setTimeout(look, 300)
       before = names.length
     }
     setTimeout(look, 100)`,
  )

/** What was asked for once a topic was heard and all is quiet. */
async function askedFor(topic: string): Promise<string[]> {
  await owner.driver.wait(
    () => owner.driver.executeScript<boolean>('return window.heard.includes(arguments[0])', topic),
    10_000,
    `${topic} was not heard`,
  )
  return (await quiet()).map(operationAt).toSorted()
}

/** Each kind of page, with what it shows once it is there, and what is asked for by each act. */
const pages = [
  ['a place', `content/${creek}`, 'Break inheritance …', ['changesWithin'], ['access', 'node']],
  ['the page', `content/${method}`, 'Written anew', ['text'], ['access', 'node']],
  ['another place', 'content/node-tide-safety', 'Tide table', [], ['access', 'node']],
  [
    'a board',
    'content/node-season-plan-calendar',
    'Training: boats',
    [],
    ['boardRows', 'boardTotals', 'node'],
  ],
  ['people', 'people/directory', 'Aino Vuori', [], ['people']],
  ['a person', 'people/person-pilar', 'Pilar', [], ['accessOfPerson', 'people', 'person']],
  ['a team', 'teams/team-birds', 'Create channel …', [], []],
  ['roles', 'roles', 'Station keeper', [], []],
  ['history', 'oversight/history', 'Effect', [], ['history']],
  ['notifications', 'notifications', 'Notification settings', [], []],
  ['settings', 'settings/guests', 'Highest level of guests', [], []],
] as const

test.each(pages.map((page, turn) => [...page, turn] as const))(
  '%s asks for what it shows of each',
  async (_, path, sees, ofText, ofGrant, turn) => {
    await owner.open(`${at}/${path}`)
    await owner.sees(sees)
    // What the page itself asks for is not taken for what an act has it ask.
    await quiet()
    const found: Record<string, readonly string[]> = {}
    for (const [act, does] of Object.entries(acts)) {
      await listen()
      found[act] = await askedFor(await does(turn))
    }
    expect(found).toEqual({
      'a page is written': ofText,
      'somebody is given access': ofGrant,
      'a word is sent': ['drafts', 'notifications'],
    })
  },
)
