import { rmSync } from 'node:fs'
import { parseArgs } from 'node:util'
import { largeOwner, sizes } from '#demo/large.ts'
import { demoPassword } from '#demo/scenario/people.ts'
import { Visitor } from '#e2e/visitor.ts'
import { middle, told } from './measure.ts'
import { copyOfLarge } from './seeded.ts'
import { builtWeb, quietServer } from './quiet-server.ts'

/**
 * What a click takes in Chromium on a large workspace, from the click until what it shows is drawn:
 * node --import tsx bench/clicks.ts --size M. Each is clicked on several times, on something else each time.
 */
const { values } = parseArgs({ options: { size: { type: 'string', default: 'M' } } })
const dataDir = await copyOfLarge(values.size as keyof typeof sizes)
const running = await quietServer(dataDir, builtWeb)
const visitor = await Visitor.arrive(running.address)
await visitor.signIn(largeOwner.mail, demoPassword)

/** In the page: what is clicked on, and whether what it shows is there; both may read `round`. */
interface Click {
  readonly what: string
  readonly path: string
  /** Is there once the page is ready. */
  readonly ready: string
  readonly click: string
  readonly shown: string
  /** What is to be done before the first click, and again between one and the next. */
  readonly before?: string
}

const one = (selector: string) => `document.querySelector(\`${selector}\`)`
const nth = (selector: string) => `document.querySelectorAll(\`${selector}\`)[round]`
const access = 'aside[aria-label=Access]'
/** A button of the access column, if it is there. */
const press = (text: string) =>
  `[...document.querySelectorAll('${access} button')].find(each => each.textContent === '${text}')?.click()`
/** Which of them is shown is known by its name: of those that are called alike the first. */
const links = `[...new Map([...document.querySelectorAll('[data-tree-link]')].reverse().map(each => [each.textContent, each])).values()].reverse()`
const home = '/at/large/content/n0000000000000000000000121'

const clicks: readonly Click[] = [
  {
    what: 'tree: what is in a place',
    path: '/at/large/content',
    ready: nth('[data-tree-toggle]'),
    click:
      'window.item = [...document.querySelectorAll("[data-tree-toggle][aria-expanded=false]")][0].closest("li"); item.querySelector("button").click()',
    shown: 'item.querySelector("ul li") !== null',
  },
  {
    what: 'tree: another place, with its access column',
    path: home,
    ready: one(`${access} h2`),
    click: `window.item = ${links}[round + 3]; item.click()`,
    shown: `${one('h1')}?.textContent === item.textContent && ${one(`${access} [role=status]`)}?.textContent === ''`,
  },
  {
    what: 'access column: people with access',
    path: home,
    ready: one(`${access} h2`),
    click: press('People with access'),
    shown: `${one('ul[aria-label="People with access"] li')} !== null`,
    before: press('Grants'),
  },
  {
    what: 'access column: why somebody has it',
    path: home,
    ready: one(`${access} h2`),
    click: `[...document.querySelectorAll('ul[aria-label="People with access"] button')][round + 1].click()`,
    shown: `${one(`${access} [aria-label^="From the workspace to"]`)} !== null`,
    before: `${press('Back')}; setTimeout(() => { ${press('People with access')} }, 50)`,
  },
  {
    what: 'people: somebody in the list',
    path: '/at/large/people',
    ready: one('tr[data-row="3"]'),
    click: `window.item = document.querySelector('tr[data-row="' + (round + 2) + '"]'); window.before = document.querySelector('aside h2')?.textContent; item.click()`,
    shown: `![undefined, before, 'Loading …'].includes(document.querySelector('aside h2')?.textContent)`,
  },
  {
    what: 'people: the list in another order',
    path: '/at/large/people',
    ready: one('tr[data-row="3"]'),
    click: `window.before = document.querySelector('tr[data-row="0"]').textContent; document.querySelectorAll('th button')[round % 2].click()`,
    shown: `![before, '…', undefined].includes(document.querySelector('tr[data-row="0"]')?.textContent)`,
  },
]

const floor = { what: 'two frames with nothing to draw', milliseconds: middle(await taking('true', 'true')) }
const lines = ['| | took | floor | ratio |', '|---|---:|---|---:|']
for (const click of clicks) {
  await visitor.open(click.path)
  await visitor.driver.wait(
    async () => visitor.driver.executeScript(`const round = 0; return !!(${click.ready})`),
    20_000,
  )
  const taken = await taking(click.click, click.shown, click.before)
  lines.push(lineOf(click.what, middle(taken)), lineOf(`${click.what}, the slowest`, Math.max(...taken)))
}
process.stdout.write(`${lines.join('\n')}\n`)
await visitor.close()
await running.stop()
rmSync(dataDir, { recursive: true, force: true })

function lineOf(what: string, value: number): string {
  const { what: of, milliseconds } = floor
  return `| ${what} | ${told(value)} | ${of}, ${told(milliseconds)} | ${(value / milliseconds).toFixed(1)} |`
}

/** From the click until what it shows is drawn, two frames after it is there. */
async function taking(click: string, shown: string, before = ''): Promise<number[]> {
  const taken: number[] = []
  for (let round = 0; round < 7; round += 1) {
    await visitor.driver.executeScript(`const round = ${round}; ${before}`)
    await visitor.driver.sleep(300)
    taken.push(
      await visitor.driver.executeAsyncScript<number>(
        `const done = arguments[1], round = arguments[0];
        const began = performance.now();
        ${click};
        const look = () => (${shown})
          ? requestAnimationFrame(() => requestAnimationFrame(() => done(performance.now() - began)))
          : setTimeout(look, 1)
        look()`,
        round,
      ),
    )
  }
  return taken
}
