import { fileURLToPath } from 'node:url'
import { By, Key } from 'selenium-webdriver'
import { generate } from 'otplib'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { demoPassword } from '#demo/scenario/people.ts'
import { type OwnerOfDemo, ownerOfDemo } from './stage.ts'
import type { Visitor } from './visitor.ts'
import { dayAhead, dayInWords } from './days.ts'

/** People who are here: signing in, the list and acts on many, teams, settings, leaving. */
const at = '/at/marram-coast-survey'
let demo: OwnerOfDemo
let owner: Visitor

beforeAll(async () => {
  demo = await ownerOfDemo()
  owner = demo.owner
})

afterAll(() => demo.leave())

describe('the list', () => {
  test('filters stand in the address, combine, and are shared by it', async () => {
    await owner.open(`${at}/people`)
    await owner.sees('58 people shown')
    await owner.press('Guests')
    await owner.press('Ends soon')
    await owner.sees('2 people shown')
    expect(await owner.driver.getCurrentUrl()).toMatch(/as=guest&only=ends\+soon/)
    await owner.open(`${at}/people?as=guest&only=ends+soon`)
    await owner.sees('2 people shown')
    await owner.press('Clear filters')
    await owner.sees('58 people shown')
    await owner.press('Last active')
    expect(await owner.driver.getCurrentUrl()).toContain('sort=active')
  })

  test('is walked and selected by keyboard, a range at a time, and the effect comes before the act', async () => {
    await owner.open(`${at}/people?find=season&as=member`)
    await owner.sees('11 people shown')
    await owner.driver.executeScript(`document.querySelector('[data-row="0"]').focus()`)
    const press = (...keys: string[]) =>
      owner.driver
        .actions()
        .sendKeys(...keys)
        .perform()
    await press(' ', Key.ARROW_DOWN, Key.ARROW_DOWN)
    await owner.driver.actions().keyDown(Key.SHIFT).sendKeys(' ').keyUp(Key.SHIFT).perform()
    await owner.sees('3 selected')
    const end = dayAhead(150)
    await owner.press('Set end …')
    await owner.fillDay('Ends after', end.day)
    await owner.sees('Set the end for 3 people')
    expect(await owner.barriers()).toEqual([])
    await owner.press('Set the end for 3 people')
    await owner.sees('The end is set for 3 people.')
    await owner.sees(`Until ${end.words}`)
    await owner.press('Select everybody shown')
    await owner.sees('11 selected')
    await owner.press('Suspend …')
    await owner.sees('skipped')
    await owner.press('Add to team …')
    await owner.choose('Add to team', 'Data Desk')
    await owner.sees('to Data Desk')
  })

  test('what a button opens has the focus, and Escape gives it back', async () => {
    const press = (key: string) => owner.driver.actions().sendKeys(key).perform()
    const focused = () =>
      owner.driver.executeScript<string>(
        'const at = document.activeElement; return at.ariaLabel ?? at.labels?.[0]?.textContent ?? at.textContent',
      )
    const opener = (words: string) =>
      owner.driver.executeScript(
        `[...document.querySelectorAll('button')].find(each => each.textContent === '${words}').focus()`,
      )
    await owner.open(`${at}/content/node-sites-north-spit-method`)
    await owner.sees('Break inheritance …')
    const inTree = await owner.driver.findElement(By.css('[data-tree-link][aria-current=page]'))
    expect([await inTree.getText(), await inTree.isDisplayed()]).toEqual(['Method', true])
    for (const [words, first] of [
      ['Move …', 'Move Method to'],
      ['More', 'Archive'],
      ['Break inheritance …', 'Keep'],
    ] as const) {
      await opener(words)
      await press(Key.ENTER)
      if (words === 'More') await owner.press('Archive …')
      await owner.driver.wait(
        async () => {
          const now = await focused()
          return now !== words && now.startsWith(first)
        },
        5000,
        `${words}: ${await focused()}`,
      )
      await press(Key.ESCAPE)
      await owner.driver.wait(async () => (await focused()) === words, 5000, `back to ${words}`)
    }
  })

  test('the list of acts leads anywhere, an f to what finds on the page', async () => {
    await owner.open(`${at}/people/person-joss`)
    await owner.sees('Joss Penhale')
    expect(await owner.driver.getTitle()).toBe('Joss Penhale · People · Marram Coast Survey · Noskel')
    await owner.driver.actions().sendKeys(Key.TAB, Key.ENTER).perform()
    expect(await owner.driver.executeScript('return document.activeElement.tagName')).toBe('MAIN')
    await owner.open(`${at}/people`)
    await owner.sees('shown')
    await owner.driver.actions().sendKeys('f').perform()
    expect(await owner.driver.executeScript('return document.activeElement.ariaLabel')).toBe('Find people')
    await owner.driver.executeScript('document.activeElement.blur()')
    await owner.driver.actions().sendKeys('a').perform()
    await owner.sees('Import people from CSV')
    expect(await owner.barriers()).toEqual([])
    await owner.driver.actions().sendKeys('join link', Key.ENTER).perform()
    await owner.sees('Works until')
  })
})

describe('signing in', () => {
  test('a second step is set up, asked for, and got around by a recovery code', async () => {
    const davit = await demo.welcome('davit@marram.example')
    await davit.open('/account')
    await davit.fill('Your password', demoPassword)
    await davit.press('Set up')
    await davit.sees('Code from the app')
    const secret = (await (await davit.field('The key')).getAttribute('value')) ?? ''
    await davit.fill('Code from the app', await generate({ secret }))
    await davit.press('Turn on two-step sign-in')
    await davit.sees('Save these recovery codes.')
    const code = await davit.driver.executeScript<string>(
      `return document.querySelector('[aria-label="Recovery codes"] li').innerText`,
    )
    expect(await davit.barriers()).toEqual([])
    await davit.press('I have saved them')
    await davit.sees('10 recovery codes are left.')
    const elsewhere = await demo.arrive()
    await elsewhere.open('/sign-in')
    await elsewhere.fill('Mail address', 'davit@marram.example')
    await elsewhere.fill('Password', demoPassword)
    await elsewhere.press('Sign in')
    await elsewhere.sees('Two-step sign-in')
    await elsewhere.fill('Code', '000000')
    await elsewhere.press('Sign in')
    await elsewhere.sees('This code is wrong')
    await elsewhere.fill('Code', code)
    await elsewhere.press('Sign in')
    await elsewhere.sees('My private folder')
    await davit.open('/account')
    await davit.sees('9 recovery codes are left.')
    await davit.press('Sign out everywhere else')
    await elsewhere.open(at)
    await elsewhere.sees('Mail address')
  })

  test('a forgotten password is chosen anew by a mailed link', async () => {
    const pilar = await demo.arrive()
    await pilar.open('/sign-in')
    await pilar.fill('Mail address', 'pilar@marram.example')
    await pilar.follow('I forgot my password')
    await pilar.press('Send link')
    await pilar.sees('was sent to it')
    await pilar.open('/mailbox')
    await pilar.pressRow('pilar@marram.example')
    await pilar.open(
      await pilar.driver.executeScript<string>(`return document.querySelector('article a').href`),
    )
    await pilar.fill('New password', 'ringing in the small hours')
    expect(await pilar.barriers()).toEqual([])
    await pilar.press('Save password')
    await pilar.sees('Your password is changed')
    await pilar.fill('Mail address', 'pilar@marram.example')
    await pilar.fill('Password', 'ringing in the small hours')
    await pilar.press('Sign in')
    await pilar.sees('My private folder')
  })
})

describe('teams', () => {
  test('a request is made, reaches the lead, and is decided with its effect', async () => {
    const nadim = await demo.welcome('jory@marram.example')
    await nadim.open(`${at}/teams/team-dunes`)
    await nadim.press('Request to join …')
    await nadim.fill('Message to the leads', 'I walk there every week.')
    await nadim.press('Request to join Dune Survey')
    await nadim.sees('A lead decides')
    const maren = await demo.welcome('maren@marram.example')
    await maren.open(`${at}/notifications`)
    await maren.sees('Jory Tresk requests to join Dune Survey: “I walk there every week”')
    await maren.open(`${at}/teams/team-dunes`)
    await maren.press('Accept: Jory Tresk')
    await maren.sees('gain')
    expect(await maren.barriers()).toEqual([])
    await maren.press('Accept Jory Tresk')
    await maren.sees('Jory Tresk is added to Dune Survey.')
    await nadim.sees('Leave')
  })

  test('several come in at once: pasted, from another team; and how one joins is changed', async () => {
    await owner.open(`${at}/teams/team-boats`)
    await owner.press('Add several people …')
    await owner.press('paste')
    await owner.paste('Names or addresses', 'Imke Fenwright\nliv@marram.example; Nobody Known')
    await owner.sees('Unknown addresses: Nobody Known.')
    await owner.press('Add 2 people to Boats and Kit')
    await owner.sees('2 people added to Boats and Kit.')
    await owner.press('Edit team …')
    await owner.choose('How to join', 'By request')
    await owner.press('Save settings')
    await owner.sees('Boats and Kit is changed.')
    await owner.sees('Members can request to join. A lead decides.')
  })
})

test('a setting says what it does, shows its effect, and stands in the history', async () => {
  await owner.open(`${at}/settings/guests`)
  await owner.press('Change: Highest level of guests')
  await owner.choose('Level', 'Reader')
  await owner.sees('lose')
  expect(await owner.barriers()).toEqual([])
  await owner.press('Set highest level')
  await owner.sees('Highest level of guests changed.')
  await owner.follow('History of the settings')
  await owner.sees('limited guests to Reader')
})

test('a profile is one’s own, and an earlier handle still leads to it', async () => {
  const yara = await demo.welcome('yara@marram.example')
  await yara.open(`${at}/me`)
  await yara.press('Edit profile')
  await yara.fill('Handle', 'yara.e')
  await yara.fill('Title', 'Botanist and lichens')
  await yara.upload('Choose a picture', fileURLToPath(new URL('../web/index.html', import.meta.url)))
  await yara.sees('This is not a picture that can be read.')
  await yara.upload(
    'Choose a picture',
    fileURLToPath(new URL('../docs/screenshots/teams.png', import.meta.url)),
  )
  await yara.sees('Remove picture')
  await yara.misses('This is not a picture')
  expect(await yara.barriers()).toEqual([])
  await yara.press('Save profile')
  await yara.sees('@yara.e')
  await owner.open(`${at}/people/@yara.elmhirst`)
  await owner.sees('Botanist and lichens')
  await owner.sees('before: @yara.elmhirst')
  const sides = await owner.driver.executeScript(
    `return [...document.querySelectorAll('aside img')].map(each => [each.naturalWidth, each.naturalHeight])`,
  )
  expect(sides).toEqual([[256, 256]])
})

test('everybody finds colleagues in the directory by what they do, and nothing of their standing', async () => {
  const imke = await demo.welcome('imke@marram.example')
  await imke.open('/')
  await imke.follow('People')
  await imke.sees('52 colleagues')
  await imke.fill('Find colleagues', 'data desk')
  await imke.sees('Gesa Marwick')
  await imke.misses('Hedvig Sorel')
  expect(await imke.barriers()).toEqual([])
  await imke.follow('Gesa Marwick')
  await imke.sees('gesa@marram.example')
  expect(await imke.reads()).not.toMatch(/Suspend|last active|Without a second step/)
  // Dates stand as people of one's language write them.
  await imke.open(`${at}/me`)
  await imke.sees('Lasts until')
  const last = await imke.driver.executeScript<string>(`return document.querySelector('time').dateTime`)
  await imke.sees(`until ${dayInWords(Date.parse(last) - 1)}`)
  await imke.open('/account')
  await imke.choose('Language of dates', 'German')
  await imke.driver.wait(() =>
    imke.driver.executeScript<boolean>(`return /^\\d+\\. /.test(document.querySelector('time').innerText)`),
  )
  await imke.open(`${at}/me`)
  await imke.sees(`until ${dayInWords(Date.parse(last) - 1, 'de-DE')}`)
})

test('leaving a place, a team and the workspace are three acts', async () => {
  const bridie = await demo.welcome('bridie@next-bay-trust.example')
  await bridie.open('/')
  await bridie.follow('Photos')
  await bridie.press('Leave this place …')
  await bridie.sees('lose')
  await bridie.pressRow('Leave Photos')
  await bridie.sees('You have left Photos.')
  expect(await bridie.barriers()).toEqual([])
  const finlo = await demo.welcome('finlo@marram.example')
  await finlo.open(`${at}/teams/team-boats`)
  await finlo.press('Leave Boats and Kit')
  await finlo.pressRow('Leave team')
  await finlo.sees('is removed from Boats and Kit.')
  await finlo.open(`${at}/me`)
  await finlo.press('Leave Marram Coast Survey …')
  await finlo.sees('Your roles, teams and access end now')
  expect(await finlo.barriers()).toEqual([])
  await finlo.pressRow('Leave Marram Coast Survey')
  await finlo.sees('You are not in a workspace.')
})

test('somebody who alone keeps a team and places leaves; others take over, and an open tab is shut', async () => {
  const hedvig = await demo.welcome('aino@marram.example')
  await hedvig.open(`${at}/content`)
  await hedvig.sees('My private folder')
  await owner.open(`${at}/people/person-aino`)
  await owner.press('Remove …')
  await owner.sees('only lead of Bird Counts')
  await owner.sees('only steward of Bird Counts')
  await owner.choose('Who takes over teams, places and guests', 'Davit Orbel')
  await owner.sees('the next lead of the team takes over')
  await owner.sees('loses all access')
  expect(await owner.barriers()).toEqual([])
  await owner.pressRow('Remove Aino Vuori')
  await owner.sees('Aino Vuori is removed.')
  const began = Date.now()
  await hedvig.sees('There is nothing here that you can open.')
  expect(Date.now() - began).toBeLessThan(2000)
  await owner.open(`${at}/teams/team-birds`)
  await owner.sees('Davit Orbel · lead')
  await owner.open(`${at}/oversight/history`)
  await owner.sees('removed Aino Vuori from the workspace')
})
