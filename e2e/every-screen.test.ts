import { Key, logging } from 'selenium-webdriver'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { type OwnerOfDemo, ownerOfDemo } from './stage.ts'
import type { Visitor } from './visitor.ts'

/** Every screen once in the dark, and as on a phone: nothing stands in anybody's way, nothing is wider than the window. */
let demo: OwnerOfDemo
let owner: Visitor

beforeAll(async () => {
  demo = await ownerOfDemo()
  ;({ owner } = demo)
  await owner.chooseView({ theme: 'dark', openNodes: { 'node-sites': true } })
})

afterAll(() => demo.leave())

const at = '/at/marram-coast-survey'

/** Each with something that stands there once it is ready. */
const screens: readonly (readonly [string, string])[] = [
  [`${at}/content`, 'Shared homes'],
  [`${at}/content/node-sites-north-spit`, 'Add limit …'],
  [`${at}/content/node-season-plan-who-is-where`, 'Add limit …'],
  [`${at}/content/new-home`, 'Create shared home'],
  [`${at}/people`, 'Last active'],
  [`${at}/people/person-sefa`, 'Contact'],
  [`${at}/people/person-milo/places`, 'Milo'],
  [`${at}/people/invite`, 'Message'],
  [`${at}/people/import`, 'CSV file'],
  [`${at}/people/onboarding`, 'Join links'],
  [`${at}/people/directory`, 'Directory'],
  [`${at}/me`, 'My places'],
  [`${at}/settings`, 'Time zone'],
  [`${at}/settings/files`, 'Largest file'],
  [`${at}/settings/storage`, 'Uploaded by'],
  [`${at}/settings/publishing`, 'Marked previews'],
  [`${at}/settings/seats`, 'seats'],
  [`${at}/settings/guests`, 'Guests'],
  [`${at}/settings/owners`, 'Owner'],
  [`${at}/teams`, 'Bird Counts'],
  [`${at}/teams/team-birds`, 'request to join'],
  [`${at}/roles`, 'Auditor'],
  [`${at}/roles/role-auditor`, 'What people with this role can do'],
  [`${at}/roles/privileges`, 'Roles'],
  [`${at}/roles/matrix`, 'Privilege'],
  [`${at}/roles/levels`, 'Steward'],
  [`${at}/roles/requests`, 'Your requests'],
  [`${at}/oversight`, 'Oversight'],
  [`${at}/oversight/check`, 'Place'],
  [`${at}/oversight/requests`, 'Your requests'],
  [`${at}/oversight/draft`, 'Your draft'],
  [`${at}/oversight/history`, 'Effect'],
  [`${at}/oversight/sessions`, 'Sessions'],
  [`${at}/notifications`, 'Notify me when'],
  ...['teams', 'roles', 'people/onboarding'].map(section => [`${at}/${section}/404`, 'not found'] as const),
  [`${at}/content/node-sites-gull-sands-photos`, 'Upload a folder …'],
  [`${at}/content/node-permits-and-consents-letter-0la2yvi`, 'Page 1 of 2'],
  [`${at}/content/node-day-1-0`, 'salinity'],
  [`${at}/search?find=tide`, 'Tide Safety'],
  [`${at}/content/node-permits-and-consents-permits`, 'Gate at North Spit'],
  [`${at}/content/node-permits-and-consents-permits?as=lanes`, 'Drone flights'],
  [`${at}/content/node-season-plan-calendar?as=calendar`, 'Training: boats'],
  [`${at}/content/node-boats-kit-loans?row=node-boats-kit-loans-dinghy`, 'Oars are in the shed'],
  [`${at}/content/node-boats-kit-loans-dinghy`, 'Show it on its board'],
  ['/account', 'Password'],
  ['/mailbox', 'Mail'],
  ['/workspaces', 'Marram'],
]

const settled = `return document.querySelector('[aria-busy=true]') === null
  && !/Loading …/.test(document.body.innerText)`

/** By how much the page is wider than the window, and what stands out of it. */
const widerThanWindow = `const width = document.documentElement.clientWidth
  return document.documentElement.scrollWidth <= width ? [] : [...document.querySelectorAll('body *')]
    .filter(each => each.getBoundingClientRect().right > width + 1)
    .map(each => each.tagName + ' ' + each.className + ': ' + (each.textContent ?? '').slice(0, 40)).sort((a, b) => a.length - b.length).slice(0, 6)`

/** So many stops of the keyboard are walked on each screen. */
const mostStops = 40

/** Notes each stop once the browser has brought it into sight: `again` where the focus was before; else what is wrong with it. */
const noteStops = `window.stops = []
  const look = at => {
  if (at.dataset.walked !== undefined) return 'again'
  at.dataset.walked = ''
  // A field that is out of sight is shown by its label.
  const shown = at.getBoundingClientRect().width > 2 ? at : at.closest('label') ?? at
  const { top, bottom, left, right } = shown.getBoundingClientRect()
  const name = at.tagName + ' ' + (at.ariaLabel ?? at.textContent ?? '').trim().slice(0, 40)
  if (right <= 0 || bottom <= 0 || left >= innerWidth || top >= innerHeight) return 'out of sight: ' + name
  const { outlineStyle, boxShadow } = getComputedStyle(shown)
  return outlineStyle === 'none' && boxShadow === 'none' ? 'without a mark: ' + name : ''
  }
  addEventListener('focusin', ({ target }) => stops.push(look(target)))
  document.activeElement?.blur()`

/** Tab from stop to stop: none is a trap, each is in sight and shows that it has the focus. */
async function walk(): Promise<string[]> {
  await owner.driver.executeScript(noteStops)
  await owner.driver
    .actions()
    .sendKeys(...Array.from({ length: mostStops }, () => Key.TAB))
    .perform()
  const [stops, hasStops] = await owner.driver.executeScript<[string[], boolean]>(
    `return [window.stops, document.querySelector('a[href], button, input') !== null]`,
  )
  const again = stops.indexOf('again')
  // Past the last stop one Tab leaves the page, and the next one begins anew.
  const isTrapped = hasStops && (again === -1 ? stops.length < mostStops - 2 : again <= 3)
  return [
    ...stops.filter(each => each !== '' && each !== 'again'),
    ...(isTrapped ? [`the focus does not go on after ${stops.length} stops`] : []),
  ]
}

test.each(screens)('%s', async (path, text) => {
  await owner.resize({ width: 1280, height: 800 })
  await owner.open(path)
  await owner.sees(text)
  await owner.driver.wait(() => owner.driver.executeScript<boolean>(settled), 10_000, `${path} is not ready`)
  expect(await owner.barriers()).toEqual([])
  expect(await owner.driver.executeScript(widerThanWindow)).toEqual([])
  expect(await walk()).toEqual([])
  await owner.resize({ width: 390, height: 844 })
  expect(await owner.driver.executeScript(widerThanWindow)).toEqual([])
  const logged = await owner.driver.manage().logs().get(logging.Type.BROWSER)
  expect(logged.filter(each => each.level === logging.Level.SEVERE).map(each => each.message)).toEqual([])
})
