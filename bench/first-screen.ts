import { createServer } from 'node:http'
import type { AddressInfo } from 'node:net'
import { demoPassword } from '#demo/scenario/people.ts'
import { startDemo } from '#e2e/server.ts'
import { Visitor } from '#e2e/visitor.ts'
import { middle } from './measure.ts'

/**
 * What comes over the wire before a first screen stands, and when its largest part is drawn, beside an empty page in the
 * same browser: npm run build, then node --import tsx bench/first-screen.ts
 */

interface Screen {
  /** Bytes of code and styles, packed as they came; of fonts; of answers. */
  readonly code: number
  readonly fonts: number
  readonly answers: number
  /** When the largest part was drawn, in milliseconds after the address was opened. */
  readonly drawn: number
}

/** Of what was fetched until the page had loaded and what it shows was there. */
const read = `const of = test => performance.getEntriesByType('resource')
    .filter(each => test.test(each.name) && each.startTime <= arguments[0]).reduce((sum, each) => sum + each.transferSize, 0)
  return [of(/\\.(js|css)$/), of(/\\.woff2?$/), of(/\\/api\\//)]`

const drawnAt = `const done = arguments[0]
  new PerformanceObserver(list => done(list.getEntries().at(-1).startTime)).observe({ type: 'largest-contentful-paint', buffered: true })`

async function screen(visitor: Visitor, path: string, text: string): Promise<Screen> {
  await visitor.open(path)
  await visitor.sees(text)
  const drawn = await visitor.driver.executeAsyncScript<number>(drawnAt)
  const [code = 0, fonts = 0, answers = 0] = await visitor.driver.executeScript<number[]>(read, drawn)
  return { code, fonts, answers, drawn }
}

const demo = await startDemo()
const empty = createServer((_request, response) =>
  response.setHeader('content-type', 'text/html').end('<!doctype html><title>.</title><p>Nothing else</p>'),
)
await new Promise<void>(resolve => empty.listen(0, '127.0.0.1', resolve))
const visitor = await Visitor.arrive(demo.address)
await visitor.forgetFiles()
const nothing = `http://127.0.0.1:${(empty.address() as AddressInfo).port}/`
const times = 5
const several = async (path: string, text: string): Promise<Screen> => {
  const taken: Screen[] = []
  for (let count = 0; count < times; count += 1) taken.push(await screen(visitor, path, text))
  const of = (part: keyof Screen) => middle(taken.map(each => each[part]))
  return { code: of('code'), fonts: of('fonts'), answers: of('answers'), drawn: of('drawn') }
}
const floor = await several(nothing, 'Nothing else')
const signIn = await several('/sign-in', 'Password')
await visitor.signIn('ilse@marram.example', demoPassword)
const content = await several('/at/marram-coast-survey/content', 'Waiting for you')
const place = await several('/at/marram-coast-survey/content/node-sites', 'Grants')
const kB = (bytes: number) => `${(bytes / 1000).toFixed(0)} kB`
const row = (what: string, { code, fonts, answers, drawn }: Screen) =>
  `| ${what} | ${kB(code)} | ${kB(fonts)} | ${kB(answers)} | ${drawn.toFixed(0)} ms | × ${(drawn / floor.drawn).toFixed(1)} |`
process.stdout.write(
  `${[
    '| | code and styles | fonts | answers | largest part drawn | times an empty page |',
    '|---|---:|---:|---:|---:|---:|',
    row('signing in', signIn),
    row('where one arrives', content),
    row('a place with its access', place),
    row('an empty page', floor),
  ].join('\n')}\n`,
)
await visitor.close()
empty.close()
await demo.stop()
