import { Key } from 'selenium-webdriver'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { dayOf } from '#contract/dates.ts'
import { type OwnerOfDemo, ownerOfDemo } from './stage.ts'
import type { Visitor } from './visitor.ts'

/** Invite, team, home, share, why: two people signed in side by side, on the demo workspace. */
const at = '/at/marram-coast-survey'
const newPassword = 'tern and plover and knot'

let demo: OwnerOfDemo
let owner: Visitor
let other: Visitor

beforeAll(async () => {
  demo = await ownerOfDemo()
  ;({ owner } = demo)
  other = await demo.arrive()
})

afterAll(() => demo.leave())

async function comesIn(mail: string, name: string): Promise<void> {
  await other.open('/mailbox')
  await other.sees(mail)
  await other.pressRow(mail)
  expect(await other.barriers()).toEqual([])
  const link = await other.driver.executeScript<string>(`return document.querySelector('article a').href`)
  await other.open(link)
  await other.sees('Join Marram Coast Survey')
  await other.sees('Ilse Brandt invites you')
  expect(await other.barriers()).toEqual([])
  await other.fill('Your name', name)
  await other.fill('Password', newPassword)
  await other.sees('What you see of nests stays here.')
  await other.tick('I accept the house rules')
  await other.press('Accept invitation')
  await other.sees('Notifications')
}

describe('the first line through', () => {
  test('the Owner invites a member and a guest; each opens the link and comes in', async () => {
    await owner.follow('People')
    await owner.follow('Invite people')
    await owner.fill('Mail addresses', 'Fenna Wilde <fenna@marram.example>, ilse@marram.example')
    await owner.sees('here already')
    await owner.fill('Message', 'Good to have you with us.')
    expect(await owner.barriers()).toEqual([])
    await owner.press('Invite 1 person')
    await owner.sees('1 invitation is sent.')

    await owner.follow('Invite people')
    await owner.fill('Mail addresses', 'gate@oldfarm.example')
    await owner.tick('Guests')
    await owner.press('Invite 1 person')
    await owner.sees('gate@oldfarm.example')

    await comesIn('fenna@marram.example', 'Fenna Wilde')
    await other.sees('Shared homes')
    await other.pressOwn('Sign out')
    await other.sees('Mail address')
    await comesIn('gate@oldfarm.example', 'Gale Thorn')
    await other.sees('Nothing is shared with you yet.')
    expect(await other.barriers()).toEqual([])
  })

  test('the Owner makes a team with a lead and adds the member; its home is there at once', async () => {
    await owner.follow('Teams')
    await owner.press('Create team …')
    await owner.fill('Name', 'Seal Watch')
    await owner.choose('Lead', 'Aino Vuori')
    expect(await owner.barriers()).toEqual([])
    await owner.press('Create team')
    await owner.sees('The team Seal Watch is created.')
    await owner.pick('Add a person to Seal Watch', 'Fenna Wilde')
    await owner.sees('No access changes where you can see it.')
    await owner.press('Add Fenna Wilde to Seal Watch')
    await owner.sees('Fenna Wilde is added to Seal Watch.')
    expect(await owner.barriers()).toEqual([])
  })

  test('in Content the Owner makes a home, folders three deep and a page, and shares one folder with the guest', async () => {
    await owner.follow('Content')
    await owner.follow('Create shared home')
    await owner.fill('Name', 'Gate Keys')
    await owner.press('Create shared home')
    for (const folder of ['North gates', 'Lower gate']) {
      await owner.fill('Name of the new folder', folder)
      await owner.press('Add folder')
      await owner.sees(`The folder ${folder} is created.`)
      await owner.follow(folder)
      await owner.sees('It is empty.')
    }
    await owner.choose('Kind', 'page')
    await owner.fill('Name of the new page', 'Who holds the key')
    await owner.press('Add page')
    await owner.follow('Who holds the key')
    await owner.press('Edit')
    await owner.fill('Text of the page, in CommonMark', 'The key hangs **behind** the door.')
    await owner.press('Save page')
    await owner.sees('The key hangs behind the door.')

    await owner.follow('Lower gate')
    await owner.pick('Share with a person, team or address', 'Gale Thorn')
    const lastDay = dayOf(Date.now() + 30 * 86_400_000, 'Europe/London')
    await owner.fillDay('Ends after', lastDay)
    expect(await owner.barriers()).toEqual([])
    await owner.press('Give Reader')
    await owner.sees('Gale Thorn now has Reader on Lower gate.')
  })

  test('the guest finds exactly that folder, and no title of anything else', async () => {
    await other.open(`${at}/content`)
    await other.sees('Shared with me')
    await other.follow('Lower gate')
    await other.follow('Who holds the key')
    await other.sees('The key hangs behind the door.')
    expect(await other.reads()).not.toMatch(/Gate Keys|North gates|Sites|Season Plan/)
    await other.press('Why?')
    await other.sees('by name, inherited from Lower gate, set by Ilse Brandt')
    expect(await other.barriers()).toEqual([])
  })

  test('Why? tells the sum for a person, and through which team', async () => {
    await owner.open(`${at}/content/node-sites-north-spit-method`)
    await owner.press('People with access')
    await owner.press('Why does Davit Orbel have this?')
    await owner.sees('from the team Bird Counts, inherited from North Spit, set by Tomas Reuss')
    await owner.sees('for all members, inherited from Sites, set by Ilse Brandt')
    expect(await owner.barriers()).toEqual([])
    await owner.press('Back')
    await owner.press('Why does Bird Counts have this?')
    await owner.sees('People with this access')
  })

  test('what somebody may not do is not offered, and said clearly where it is tried', async () => {
    await other.open(`${at}/people`)
    await other.driver.wait(async () => !(await other.reads()).includes('Invite people'))
    expect(await other.reads()).not.toMatch(/Aino|Create team|Create shared home/)
    await other.open(`${at}/content/node-sites`)
    await other.sees('There is nothing here that you can open.')
    await owner.open(`${at}/content/node-funder-report`)
    await owner.pick('Share with a person, team or address', 'Gale Thorn')
    await owner.fillDay('Ends after', '2020-01-01')
    await owner.sees('The end is in the past.')
    await owner.sees('Choose a later day, or no end.')
  })

  test('the tree is walked with arrow keys, and both themes keep their contrast', async () => {
    await owner.open(`${at}/content`)
    await owner.sees('My private folder')
    await owner.driver.executeScript(`document.querySelector('[data-tree-link]').focus()`)
    const tree = `return document.activeElement.innerText.trim()`
    const press = async (key: string) => {
      await owner.driver.actions().sendKeys(key).perform()
      return owner.driver.executeScript<string>(tree)
    }
    expect(await press(Key.ARROW_DOWN)).toBe('Kit Loans')
    // The rows of a board are on it, not below it.
    expect(await press(Key.ARROW_RIGHT)).toBe('Kit Loans')
    expect(await press(Key.ARROW_DOWN)).toBe('Manuals')
    await press(Key.ARROW_RIGHT)
    await owner.sees('Outboard.pdf')
    expect(await press(Key.ARROW_RIGHT)).toBe('Outboard.pdf')
    expect(await press(Key.ARROW_LEFT)).toBe('Manuals')
    await owner.pressOwn('Dark')
    for (const view of [
      'content/node-sites-north-spit',
      'people/person-oskar',
      'people/directory',
      'people/onboarding/welcome-winter-counts',
      'people/invite',
      'people/import',
      'me',
      'settings/guests',
      'teams/team-marsh',
      'oversight/history',
      'notifications',
    ]) {
      await owner.open(`${at}/${view}`)
      await owner.sees('Notifications')
      expect([view, await owner.barriers()]).toEqual([view, []])
    }
  })
})
