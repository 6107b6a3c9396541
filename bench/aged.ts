import { rmSync } from 'node:fs'
import type { Running } from '#server/assemble.ts'
import { middle, type Reading } from './measure.ts'
import { copyOfLarge } from './seeded.ts'
import { changeable, ratesOf, signInTo, stateOf, writeTogether } from './server.ts'
import { quietServer } from './quiet-server.ts'

/** Whether a process that has taken as many changes as a month brings is as fast as one that has just begun. */

/** Of a workspace of 2,000 people: each of them changes something every other day. */
const changes = 30_000

export async function agedReadings(): Promise<Reading[]> {
  const dataDir = await copyOfLarge('M')
  const open = () => quietServer(dataDir)
  let running = await open()
  await writeTogether(running, changeable(stateOf(running), changes))
  const aged = await rates(running)
  await running.stop()
  running = await open()
  const fresh = await rates(running)
  await running.stop()
  rmSync(dataDir, { recursive: true, force: true })
  const on = { size: 'M', unit: 'a second' } as const
  const what = 'the same after a start'
  return [
    { ...on, id: 'aged.listing.rate', value: aged.listing, floor: { what, value: fresh.listing } },
    { ...on, id: 'aged.writes.rate', value: aged.writes, floor: { what, value: fresh.writes } },
  ]
}

async function rates(running: Running) {
  const signed = { running, ...(await signInTo(running)) }
  const rounds = [await ratesOf(signed), await ratesOf(signed), await ratesOf(signed)]
  return {
    listing: middle(rounds.map(each => each.listing)),
    writes: middle(rounds.map(each => each.writes)),
  }
}
