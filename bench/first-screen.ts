import { createServer } from 'node:http'
import type { AddressInfo } from 'node:net'
import { demoPassword } from '#demo/scenario/people.ts'
import { startDemo } from '#e2e/server.ts'
import { Visitor } from '#e2e/visitor.ts'
import { middle, type Reading } from './measure.ts'

/** What comes over the wire before a first screen stands, and when its largest part is drawn, beside an empty page. */

interface Screen {
  /** Bytes of code and styles, packed as they came. */
  readonly code: number
  /** When the largest part was drawn, in milliseconds after the address was opened. */
  readonly drawn: number
}

/** Of what came until the largest part was drawn: what is fetched ahead for the next screen comes after it. */
const read = `return performance.getEntriesByType('resource')
    .filter(each => /\\.(js|css)$/.test(each.name) && each.responseEnd <= arguments[0])
    .reduce((sum, each) => sum + each.transferSize, 0)`

const drawnAt = `const done = arguments[0]
  new PerformanceObserver(list => done(list.getEntries().at(-1).startTime)).observe({ type: 'largest-contentful-paint', buffered: true })`

async function screen(visitor: Visitor, path: string, text: string): Promise<Screen> {
  await visitor.open(path)
  await visitor.sees(text)
  const drawn = await visitor.driver.executeAsyncScript<number>(drawnAt)
  return { code: await visitor.driver.executeScript<number>(read, drawn), drawn }
}

export async function screenReadings(): Promise<Reading[]> {
  const demo = await startDemo()
  const empty = createServer((_request, response) =>
    response.setHeader('content-type', 'text/html').end('<!doctype html><title>.</title><p>Nothing else</p>'),
  )
  await new Promise<void>(resolve => empty.listen(0, '127.0.0.1', resolve))
  const visitor = await Visitor.arrive(demo.address)
  await visitor.forgetFiles()
  const at = '/at/marram-coast-survey/content'
  const floor = await several(
    visitor,
    `http://127.0.0.1:${(empty.address() as AddressInfo).port}/`,
    'Nothing else',
  )
  const signIn = await several(visitor, '/sign-in', 'Password')
  await visitor.signIn('ilse@marram.example', demoPassword)
  const arrival = await several(visitor, at, 'Waiting for you')
  const place = await several(visitor, `${at}/node-sites`, 'Grants')
  await visitor.close()
  empty.close()
  await demo.stop()
  return [
    ...readingsOf('screen.sign-in', signIn, floor),
    ...readingsOf('screen.arrival', arrival, floor),
    ...readingsOf('screen.place', place, floor),
  ]
}

const times = 5

async function several(visitor: Visitor, path: string, text: string): Promise<Screen> {
  const taken: Screen[] = []
  for (let count = 0; count < times; count += 1) taken.push(await screen(visitor, path, text))
  const of = (part: keyof Screen) => middle(taken.map(each => each[part]))
  return { code: of('code'), drawn: of('drawn') }
}

function readingsOf(
  id: 'screen.sign-in' | 'screen.arrival' | 'screen.place',
  { code, drawn }: Screen,
  floor: Screen,
): Reading[] {
  const page = { what: 'an empty page in the same browser', value: floor.drawn }
  return [
    { id: `${id}.code`, size: 'demo', unit: 'kB', value: code / 1000 },
    { id: `${id}.drawn`, size: 'demo', unit: 'ms', value: drawn, floor: page },
  ]
}
