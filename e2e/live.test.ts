import { afterAll, beforeAll, expect, test } from 'vitest'
import { type Line, lineTo } from './line.ts'
import { type OwnerOfDemo, ownerOfDemo } from './stage.ts'
import type { Visitor } from './visitor.ts'

/** Two people at once: what one does, the other sees without reload. The member's line can be cut. */
const at = '/at/marram-coast-survey'
const creek = `${at}/content/node-sites-harrow-creek`
const gone = 'There is nothing here that you can open.'
let demo: OwnerOfDemo
let line: Line
let owner: Visitor
let member: Visitor

beforeAll(async () => {
  demo = await ownerOfDemo()
  ;({ owner } = demo)
  line = await lineTo(demo.server.address)
  member = await demo.welcome('pilar@marram.example', line.address)
})

afterAll(async () => {
  await demo.leave()
  await line.close()
})

/** A change set sent from the Owner's own page, for what the interface gives in whole days only. */
const send = (...edits: object[]) =>
  owner.driver.executeAsyncScript<number>(
    `const [edits, done] = arguments
     fetch('/api/session').then(answer => answer.json()).then(({ csrf }) =>
       fetch('/api${at}/changes', {
         method: 'POST',
         headers: { 'content-type': 'application/json', 'x-noskel-csrf': csrf },
         body: JSON.stringify({ edits }),
       })).then(answer => done(answer.status))`,
    edits,
  )

const rename = async (name: string) => {
  await owner.press('Rename')
  await owner.fill('New name', name)
  await owner.press('Rename')
  await owner.sees(`Renamed to ${name}.`)
}

test('what one person changes appears for the other, in each of their tabs over one stream', async () => {
  await owner.open(creek)
  await member.open(creek)
  await member.sees('Harrow Creek')
  await member.driver.switchTo().newWindow('tab')
  await member.open(creek)
  await member.sees('Harrow Creek')
  const locks = await member.driver.executeAsyncScript<{ held: number; waiting: number }>(
    `navigator.locks.query().then(({ held, pending }) => arguments[0]({ held: held.length, waiting: pending.length }))`,
  )
  expect(locks).toEqual({ held: 1, waiting: 1 })
  await rename('Harrow Creek and fen')
  for (const tab of await member.driver.getAllWindowHandles()) {
    await member.driver.switchTo().window(tab)
    await member.sees('Harrow Creek and fen')
  }
})

/** Notes in each tab of the member, by its own clock, when it first says so: asking them one after another takes time of its own. */
const noteInTabs = async (text: string) => {
  for (const tab of await member.driver.getAllWindowHandles()) {
    await member.driver.switchTo().window(tab)
    await member.driver.executeScript(
      `const [text] = arguments
       window.notedAt = undefined
       const look = new MutationObserver(() => {
         if (!document.body.innerText.includes(text)) return
         look.disconnect()
         window.notedAt = Date.now()
       })
       look.observe(document.body, { subtree: true, childList: true, characterData: true })`,
      text,
    )
  }
}

/** When the Owner's page had the answer to its last change, in ms. */
const confirmedAt = () =>
  owner.driver.executeScript<number>(
    `return performance.timeOrigin + performance.getEntriesByType('resource')
       .filter(({ name }) => name.endsWith('/changes')).at(-1).responseEnd`,
  )

test('somebody who loses access loses the page within a second, in every tab', async () => {
  await noteInTabs(gone)
  await owner.press('Break inheritance …')
  await owner.tick('Start empty: keep only the grants on this place, and yourself')
  await owner.sees('lose')
  await owner.pressRow('Break inheritance, ')
  await owner.sees('Inheritance is broken on')
  const doneAt = await confirmedAt()
  for (const tab of await member.driver.getAllWindowHandles()) {
    await member.driver.switchTo().window(tab)
    await member.sees(gone)
    const notedAt = await member.driver.executeScript<number>('return window.notedAt')
    expect(notedAt - doneAt).toBeLessThan(1000)
  }
  await member.misses('Harrow Creek')
  await owner.press('Restore inheritance …')
  await owner.sees('gain')
  await owner.press('Restore inheritance')
  await member.sees('Harrow Creek and fen')
  await member.driver.close()
  await member.driver.switchTo().window((await member.driver.getAllWindowHandles())[0] ?? '')
})

test('the tab that stays takes the stream over; a line that was cut is caught up without gaps or doubles', async () => {
  await member.open(creek)
  await member.sees('Harrow Creek and fen')
  line.cut()
  for (const name of ['First find', 'Second find', 'Third find']) {
    await owner.fill('Name of the new folder', name)
    await owner.press('Add folder')
    await owner.sees(`The folder ${name} is created.`)
  }
  await member.driver.sleep(3000)
  expect(await member.reads()).not.toContain('First find')
  line.mend()
  await member.sees('Third find')
  const rows = await member.driver.executeScript<string[]>(
    `return [...document.querySelectorAll('main tbody tr')].map(row => row.innerText.split('\\n')[0].trim())`,
  )
  expect(rows.filter(row => row.includes('find')).sort()).toEqual(
    ['First find', 'Second find', 'Third find'].map(name => rows.find(row => row.startsWith(name))),
  )
})

test('a start and an end pass by themselves in the open tab, and stand in the history', async () => {
  await member.open(`${at}/content/node-funder-report`)
  await member.sees(gone)
  const now = Date.now()
  const gift = {
    kind: 'grant.add',
    node: 'node-funder-report',
    principal: 'person:person-pilar',
    gives: 3,
    from: now + 2500,
    until: now + 6000,
  }
  expect(await send(gift)).toBe(200)
  await member.driver.sleep(500)
  expect(await member.reads()).toContain(gone)
  await member.sees('Draft figures')
  expect(Date.now()).toBeGreaterThanOrEqual(gift.from)
  await member.sees(gone)
  expect(Date.now()).toBeGreaterThanOrEqual(gift.until)
  expect(Date.now() - gift.until).toBeLessThan(2000)
  await owner.open(`${at}/oversight/history`)
  await owner.sees('The workspace ended the Reader grant of Pilar Onsund on Funder Report')
  await owner.sees('The workspace started the Reader grant of Pilar Onsund on Funder Report')
})

test('of two people at the same place the second is told what changed, and decides again', async () => {
  await owner.open(`${at}/content/node-sites-gull-sands-drone-flights`)
  await owner.press('Add limit …')
  await owner.pick('Person, team or group to limit', 'All guests')
  await owner.choose('Highest level', 'Preview')
  await owner.sees('people drop to Preview')
  const before = Number(/(\d+) people drop to Preview/.exec(await owner.reads())?.[1])
  const meanwhile = await demo.welcome('tomas@marram.example')
  await meanwhile.open(`${at}/content/node-sites-gull-sands-drone-flights`)
  await meanwhile.pick('Share with a person, team or address', 'Henrik Maas')
  await meanwhile.press('Give Reader')
  await meanwhile.sees('Henrik Maas now has Reader on Drone flights.')
  await owner.press('Limit to Preview')
  await owner.sees('Something changed in the meantime')
  await owner.sees('Tomas Reuss gave Henrik Maas Reader on Drone flights in Gull Sands.')
  await owner.sees('What you saw before')
  await owner.sees('What it would do now')
  await owner.sees(`${before + 1} people drop to Preview`)
  expect(await owner.barriers()).toEqual([])
  await owner.press('Limit to Preview')
  await owner.sees('Limited to Preview on Drone flights.')
})
