import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { type OwnerOfDemo, ownerOfDemo } from './stage.ts'
import type { Visitor } from './visitor.ts'

/**
 * Phones and large zoom are held against the wide screen: whatever can be done there can be done here, nothing lies over
 * anything else, and nothing runs out at the side.
 */
const at = '/at/marram-coast-survey'
const widths = {
  'a phone': { width: 390, height: 800 },
  '200 % zoom': { width: 640, height: 400 },
} as const
const bulk = { width: 1280, height: 800 }

type View = readonly [path: string, sees: string]

/** Each main view with what is seen once it is there. */
const views: readonly View[] = [
  [`${at}/content`, 'Waiting for you'],
  [`${at}/content/node-sites-harrow-creek`, 'Break inheritance …'],
  [`${at}/content/node-permits-and-consents-permits`, 'Waits for them'],
  [`${at}/content/node-permits-and-consents-permits?as=lanes`, 'Drone flights'],
  [`${at}/content/node-season-plan-calendar?as=calendar`, 'Training: boats'],
  [`${at}/people/directory`, 'Aino Vuori'],
  [`${at}/people/person-oskar`, 'Withdraw invitation'],
  [`${at}/people/invite`, 'What they get'],
  [`${at}/people/import`, 'Import people from CSV'],
  [`${at}/teams/team-birds`, 'Create channel …'],
  [`${at}/roles`, 'Requests ('],
  [`${at}/oversight/check`, 'Start outline access'],
  [`${at}/oversight/requests`, 'Requests to decide'],
  [`${at}/oversight/history`, 'Effect'],
  [`${at}/notifications`, 'Notification settings'],
  [`${at}/settings/guests`, 'Highest level of guests'],
  [`${at}/me`, 'Leave Marram Coast Survey'],
  ['/account', 'Your account'],
]

let demo: OwnerOfDemo
let owner: Visitor

beforeAll(async () => {
  demo = await ownerOfDemo()
  owner = demo.owner
})

afterAll(() => demo.leave())

interface Seen {
  readonly names: readonly string[]
  /** Those that something else lies over, or that cannot be scrolled to. */
  readonly covered: readonly string[]
  /** How far the page runs out at the side, in pixels. */
  readonly beyond: number
}

/** Every control that is shown, scrolled to where it is, and what lies at its middle then. */
const look = `(async () => {
  const nameOf = each => (each.ariaLabel ?? (each.labels?.[0]?.textContent || each.textContent)).replace(/\\s+/g, ' ').trim()
  const isShown = each => {
    const { width, height } = each.getBoundingClientRect()
    return width > 2 && height > 2 && each.checkVisibility({ visibilityProperty: true })
  }
  // A panel beside a list stands in its place where there is little room.
  const within = document.querySelector('.beside > aside') ?? document.body
  const controls = [...within.querySelectorAll('button, a, input, select, textarea')]
    .filter(each => each.closest('main, aside') !== null)
    .filter(each => isShown(each) && !each.disabled && !each.matches('[type=file], [aria-hidden=true]'))
  const isReached = each => {
    each.scrollIntoView({ block: 'center', inline: 'center' })
    const { left, right, top, bottom } = each.getClientRects()[0]
    const there = document.elementFromPoint((left + right) / 2, (top + bottom) / 2)
    return there !== null && (each.contains(there) || there.contains(each) && there.matches('label, a, button'))
  }
  // Of a table only the columns in sight are drawn: it is looked through from side to side.
  const names = new Set(controls.map(nameOf))
  const grid = within.querySelector('[role=grid]')
  for (let left = 0; grid !== null && left < grid.scrollWidth; left += 100) {
    grid.scrollLeft = left
    await new Promise(drawn => requestAnimationFrame(() => requestAnimationFrame(drawn)))
    for (const each of grid.querySelectorAll('button, a')) if (isShown(each)) names.add(nameOf(each))
  }
  grid?.scrollTo({ left: 0 })
  return {
    names: [...names],
    covered: controls.filter(each => !isReached(each)).map(nameOf),
    beyond: document.documentElement.scrollWidth - innerWidth,
  }
})().then(arguments[0])`

async function seenAt(size: typeof bulk, [path, sees]: View): Promise<Seen> {
  await owner.resize(size)
  await owner.open(path)
  await owner.sees(sees)
  return owner.driver.executeAsyncScript<Seen>(look)
}

describe.each(views)('%s', (...view) => {
  test('can be used on a phone and at 200 % as on a wide screen', async () => {
    const { names } = await seenAt(bulk, view)
    for (const [what, size] of Object.entries(widths)) {
      const seen = await seenAt(size, view)
      const missing = names.filter(name => !seen.names.includes(name))
      expect({ what, missing, covered: seen.covered, beyond: seen.beyond }).toEqual({
        what,
        missing: [],
        covered: [],
        beyond: 0,
      })
    }
  })
})
