import { By, Key } from 'selenium-webdriver'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { type OwnerOfDemo, ownerOfDemo } from './stage.ts'
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
    await owner.sees('What people with this role can do')
    expect(await owner.barriers()).toEqual([])
    await owner.press('Copy role …')
    await owner.fill('Name', 'Season desk')
    await owner.fill('Find privileges', 'people')
    await owner.tick('remove people for good')
    await owner.sees('Also added, because it is needed: suspend people and set when their access ends.')
    await owner.tick('suspend people and set when their access ends')
    await owner.sees('Also removed, because it needs that: remove people for good.')
    expect(await owner.barriers()).toEqual([])
  })

  test('stands at a rank of the ladder, moved by the keyboard, and survives loading the page anew', async () => {
    await owner.sees('Same rank as Auditor')
    const mover = await owner.driver.findElement(By.css('[role=slider]'))
    await mover.sendKeys(Key.ARROW_UP)
    await owner.sees('Outranks Auditor')
    const press = (key: string) => owner.driver.actions().sendKeys(key).perform()
    await press(Key.ARROW_UP)
    await owner.sees('Same rank as People lead')
    await press(Key.ARROW_DOWN)
    await owner.sees('Outranks Auditor')
    await owner.driver.navigate().refresh()
    await owner.sees('Outranks Auditor')
    await owner.press('Create role')
    await owner.sees('The role Season desk is created.')
    await owner.sees('Nobody has this role')
  })

  test('is given with what it does first', async () => {
    await owner.pick('Assign to a person', 'Piran Yeo')
    await owner.sees('1 person may now')
    await owner.sees('1 person ranks higher.')
    await owner.press('Assign Season desk to Piran Yeo')
    await owner.sees('The role Season desk is assigned to Piran Yeo.')
    await owner.sees('1 person has this role')
  })

  test('is changed beside the others, as a draft with its effect, and seen from the privilege’s side', async () => {
    await owner.follow('Matrix')
    await owner.press('Season desk: invite guests')
    await owner.sees('1 added, 0 removed')
    await owner.press('Preview …')
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
    await owner.press('Delete role …')
    await owner.sees('1 holder gets instead')
    await owner.choose('1 holder gets instead', 'Warden')
    await owner.sees('may no longer')
    await owner.pressRow('Move 1 person and delete role')
    await owner.sees('The role Season desk is deleted.')
    await owner.misses('1 person has this role')
  })
})

describe('scope', () => {
  test('a helper finds the people of the scope, the one act, and nothing else of administration', async () => {
    const gesa = await demo.welcome('gesa@marram.example')
    await gesa.open('/')
    await gesa.follow('People')
    await gesa.sees('18 people shown')
    await gesa.misses('Aino Vuori')
    expect(await gesa.reads()).not.toMatch(/Invite people|Roles|Settings/)
    await gesa.open(`${at}/people/person-imke`)
    await gesa.sees('Sign-in')
    expect(await gesa.reads()).not.toMatch(/Suspend …|Remove …|Assign role …|Edit profile/)
    expect(await gesa.barriers()).toEqual([])
  })

  test('many people change their role at once, over a team, with what sleeps there', async () => {
    await owner.open(`${at}/people?find=volunteers&as=member&status=active`)
    await owner.press('Select everybody shown')
    await owner.press('Assign role …')
    await owner.choose('Role to assign', 'Sign-in help')
    await owner.choose('Scope', 'the people of Saltmarsh')
    await owner.sees('people may now help people sign in again over Saltmarsh')
    expect(await owner.barriers()).toEqual([])
    await owner.choose('Role to assign', 'Auditor')
    await owner.sees('No effect in this scope:')
  })
})

test('a role is asked for, decided in one act, and who asked is told', async () => {
  const imke = await demo.welcome('imke@marram.example')
  // No form is offered that would be refused in the end.
  for (const path of ['people/invite', 'people/import', 'content/new-home']) {
    await imke.open(`${at}/${path}`)
    await imke.sees('None of your roles has the privilege')
    expect(await imke.driver.findElements(By.css('main form, main input'))).toEqual([])
  }
  await imke.open(`${at}/me`)
  await imke.follow('Request a role')
  await imke.choose('You want to', 'help people sign in again')
  await imke.fill('Message to the person who decides', 'Many forget')
  await imke.press('Send request')
  await imke.sees('Waiting for an answer.')
  expect(await imke.barriers()).toEqual([])
  await owner.open(`${at}/notifications`)
  await owner.sees('Imke Fenwright requests a role that may help people sign in again')
  await owner.follow('Decide')
  await owner.sees('Requests to decide')
  await owner.driver
    .findElement(By.xpath(`//li[contains(., 'Imke')]//button[starts-with(., 'Decide')]`))
    .click()
  await owner.choose('Role and scope', 'Sign-in help over Volunteers')
  await owner.sees('1 person may now')
  await owner.press('Assign Sign-in help to Imke Fenwright')
  await owner.sees('The role Sign-in help is assigned to Imke Fenwright.')
  await imke.open(`${at}/notifications`)
  await imke.sees('Ilse Brandt accepted your request')
})

test('looking through somebody’s eyes takes a reason, is framed, and is told to them', async () => {
  const noor = await demo.welcome('noor@marram.example')
  await noor.open('/')
  await noor.follow('Oversight')
  await noor.follow('Sessions')
  await noor.pick('See as', 'Sefa Lund')
  await noor.fill('Reason', 'She finds nothing')
  await noor.press('See as Sefa Lund')
  await noor.sees('You see the workspace as Sefa Lund.')
  await noor.sees('Access Notes')
  expect(await noor.barriers()).toEqual([])
  const sefa = await demo.welcome('sefa@lund-estate.example')
  await sefa.open(`${at}/me`)
  await sefa.sees('Who saw the workspace as me')
  await sefa.sees('“She finds nothing”')
})

test('seats: more from the next period on, with what they cost', async () => {
  await owner.open(`${at}/settings/seats`)
  await owner.press('Change number of seats …')
  await owner.fill('Seats', '70')
  await owner.sees('€315.00 a month, €3,780.00 a year.')
  await owner.press('Change to 70 seats from the next period')
  await owner.sees('70 seats: €315.00 a month')
  expect(await owner.barriers()).toEqual([])
})

describe('owners', () => {
  test('the workspace is handed over with the other’s assent, in one moment', async () => {
    const maren = await demo.welcome('maren@marram.example')
    await owner.open(`${at}/settings/owners`)
    await owner.pick('Hand over to', 'Maren Holt')
    await owner.press('Send offer to Maren Holt')
    await owner.sees('Waiting for an answer.')
    expect(await owner.barriers()).toEqual([])
    await maren.open(`${at}/notifications`)
    await maren.sees('Ilse Brandt offers to hand over the workspace to you.')
    await maren.follow('Decide')
    await maren.press('Accept …')
    await maren.sees('1 person may now')
    expect(await maren.barriers()).toEqual([])
    await maren.press('Accept and become owner')
    await maren.sees('You are now an owner of the workspace.')
    await owner.open(`${at}/me`)
    await owner.sees('Administrator')
  })

  test('one alone is warned, and does not go', async () => {
    const tomas = await demo.welcome('tomas@marram.example')
    await tomas.open(`${at}/people/person-tomas`)
    await tomas.press('Remove: Owner')
    await tomas.pressRow('Remove the role Owner')
    await tomas.sees('The role Owner is removed from')
    const maren = await demo.welcome('maren@marram.example')
    await maren.open(`${at}/settings/owners`)
    await maren.sees('There is only one owner.')
    await maren.open(`${at}/me`)
    await maren.press('Leave Marram Coast Survey …')
    await maren.sees('The workspace would have no active owner.')
  })
})
