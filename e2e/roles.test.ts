import { By, Key } from 'selenium-webdriver'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { type OwnerOfDemo, ownerOfDemo } from './owner.ts'
import type { Visitor } from './visitor.ts'

/** Roles: made, given, seen from every side; helpers within their scope; owners; asking; looking. */
const at = '/at/marram-coast-survey'
let demo: OwnerOfDemo
let owner: Visitor

beforeAll(async () => {
  demo = await ownerOfDemo()
  owner = demo.owner
})

afterAll(() => demo.leave())

describe('a role of one’s own', () => {
  test('begins as a copy; what a privilege needs comes along, and what needs it goes with it', async () => {
    await owner.follow('Roles')
    await owner.press('Auditor')
    await owner.sees('What a holder could do')
    expect(await owner.barriers()).toEqual([])
    await owner.press('Copy it …')
    await owner.fill('Name', 'Season desk')
    await owner.fill('Find privileges', 'people')
    await owner.tick('remove people for good')
    await owner.sees('Comes along, since it is needed: suspend people and set when their time ends.')
    await owner.tick('suspend people and set when their time ends')
    await owner.sees('Goes with it, since it needs that: remove people for good.')
    expect(await owner.barriers()).toEqual([])
  })

  test('stands on a rung of the ladder, moved by the keyboard, and survives loading the page anew', async () => {
    await owner.sees('beside Auditor')
    const mover = await owner.driver.findElement(By.css('[role=slider]'))
    await mover.sendKeys(Key.ARROW_UP)
    await owner.sees('Outranks Auditor')
    const press = (key: string) => owner.driver.actions().sendKeys(key).perform()
    await press(Key.ARROW_UP)
    await owner.sees('beside People lead')
    await press(Key.ARROW_DOWN)
    await owner.sees('Outranks Auditor')
    await owner.driver.navigate().refresh()
    await owner.sees('Outranks Auditor')
    await owner.press('Make the role')
    await owner.sees('The role Season desk is there.')
    await owner.sees('Nobody holds it')
  })

  test('is given with what it does first', async () => {
    await owner.pick('Give it to', 'Piran Yeo')
    await owner.sees('1 person may now')
    await owner.sees('1 person ranks higher.')
    await owner.press('Give Season desk to Piran Yeo')
    await owner.sees('Piran Yeo holds Season desk now.')
    await owner.sees('1 person holds it')
  })

  test('is changed beside the others, as a draft with its effect, and seen from the privilege’s side', async () => {
    await owner.follow('Side by side')
    await owner.press('Season desk: invite guests')
    await owner.sees('1 put in, 0 taken out')
    await owner.press('See what it does …')
    await owner.sees('1 person may now invite guests.')
    expect(await owner.barriers()).toEqual([])
    await owner.press('Apply to 1 role')
    await owner.sees('1 role changed.')
    await owner.follow('Privileges')
    await owner.press('invite guests')
    await owner.sees('5 people have it.')
    expect(await owner.barriers()).toEqual([])
  })

  test('is deleted once its people are moved, in one act', async () => {
    await owner.open(`${at}/roles`)
    await owner.press('Season desk')
    await owner.press('Delete it …')
    await owner.sees('Its holder comes to')
    await owner.choose('Its holder comes to', 'Warden')
    await owner.sees('may no longer')
    await owner.press('Move 1 person and delete it')
    await owner.sees('The role Season desk is deleted.')
    await owner.misses('1 person holds it')
  })
})

describe('scope', () => {
  test('a helper finds the people of the scope, the one act, and nothing else of administration', async () => {
    const gesa = await demo.welcome('gesa@marram.example')
    await gesa.follow('People')
    await gesa.sees('18 shown')
    await gesa.misses('Aino Vuori')
    expect(await gesa.reads()).not.toMatch(/Invite people|Roles|Settings/)
    await gesa.open(`${at}/people/person-imke`)
    await gesa.sees('Signing in')
    expect(await gesa.reads()).not.toMatch(/Suspend …|Remove …|Give another role|Change the profile/)
    expect(await gesa.barriers()).toEqual([])
  })

  test('many people change their role at once, over a team, with what sleeps there', async () => {
    await owner.open(`${at}/people?find=volunteers&as=member&status=active`)
    await owner.press('Select everybody who is shown')
    await owner.press('Give a role …')
    await owner.choose('Role to give', 'Sign-in help')
    await owner.choose('Over', 'the people of Saltmarsh')
    await owner.sees('people may now help people to sign in again over Saltmarsh')
    expect(await owner.barriers()).toEqual([])
    await owner.choose('Role to give', 'Auditor')
    await owner.sees('Sleeps over that:')
  })
})

test('a role is asked for, decided in one act, and who asked is told', async () => {
  const imke = await demo.welcome('imke@marram.example')
  await imke.open(`${at}/me`)
  await imke.follow('Ask for another')
  await imke.choose('You would like to', 'help people to sign in again')
  await imke.fill('A word to whoever decides', 'Many forget')
  await imke.press('Ask for it')
  await imke.sees('Waits for whoever may give it.')
  expect(await imke.barriers()).toEqual([])
  await owner.open(`${at}/notices`)
  await owner.sees('Imke Fenwright asks for a role that may help people to sign in again')
  await owner.follow('Decide')
  await owner.sees('For you to decide')
  await owner.driver
    .findElement(By.xpath(`//li[contains(., 'Imke')]//button[starts-with(., 'Decide')]`))
    .click()
  await owner.choose('By the role', 'Sign-in help over Volunteers')
  await owner.sees('1 person may now')
  await owner.press('Give Sign-in help to Imke Fenwright')
  await owner.sees('Imke Fenwright holds Sign-in help now.')
  await imke.open(`${at}/notices`)
  await imke.sees('Ilse Brandt gave you what you asked for')
})

test('looking through somebody’s eyes takes a reason, is framed, and is told to them', async () => {
  const noor = await demo.welcome('noor@marram.example')
  await noor.follow('Oversight')
  await noor.follow('Looking')
  await noor.pick('Whose eyes', 'Sefa Lund')
  await noor.fill('Why do you look?', 'She finds nothing')
  await noor.press('Look through Sefa Lund’s eyes')
  await noor.sees('You look through Sefa Lund’s eyes.')
  await noor.sees('Access Notes')
  expect(await noor.barriers()).toEqual([])
  const sefa = await demo.welcome('sefa@lund-estate.example')
  await sefa.open(`${at}/me`)
  await sefa.sees('Who looked through my eyes')
  await sefa.sees('“She finds nothing”')
})

test('seats: more from the next period on, with what they cost', async () => {
  await owner.open(`${at}/settings/seats`)
  await owner.press('More or fewer …')
  await owner.fill('Seats', '70')
  await owner.sees('€315.00 a month, €3,780.00 a year.')
  await owner.press('Have 70 seats from the next period on')
  await owner.sees('70 seats: €315.00 a month')
  expect(await owner.barriers()).toEqual([])
})

describe('owners', () => {
  test('the workspace is handed over with the other’s assent, in one moment', async () => {
    const maren = await demo.welcome('maren@marram.example')
    await owner.open(`${at}/settings/owners`)
    await owner.pick('Hand over to', 'Maren Holt')
    await owner.press('Offer it to Maren Holt')
    await owner.sees('It waits for their word.')
    expect(await owner.barriers()).toEqual([])
    await maren.open(`${at}/notices`)
    await maren.sees('Ilse Brandt offers to hand the workspace over to you.')
    await maren.follow('Decide')
    await maren.press('Take it over …')
    await maren.sees('1 person may now')
    expect(await maren.barriers()).toEqual([])
    await maren.press('Take the workspace over')
    await maren.sees('The workspace is yours.')
    await owner.open(`${at}/me`)
    await owner.sees('Administrator')
  })

  test('one alone is warned, and does not go', async () => {
    const tomas = await demo.welcome('tomas@marram.example')
    await tomas.open(`${at}/people/person-tomas`)
    await tomas.press('Take: Owner')
    await tomas.press('Take the role Owner')
    await tomas.sees('is no longer Owner.')
    const maren = await demo.welcome('maren@marram.example')
    await maren.open(`${at}/settings/owners`)
    await maren.sees('There is one owner alone.')
    await maren.open(`${at}/me`)
    await maren.press('Leave Marram Coast Survey …')
    await maren.sees('The workspace would have no active owner.')
  })
})
