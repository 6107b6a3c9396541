import { fileURLToPath } from 'node:url'
import { Key } from 'selenium-webdriver'
import { generate } from 'otplib'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { demoPassword } from '#demo/scenario/people.ts'
import { type OwnerOfDemo, ownerOfDemo } from './owner.ts'
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
    await owner.sees('58 shown')
    await owner.press('Guests')
    await owner.press('Ends soon')
    await owner.sees('2 shown')
    expect(await owner.driver.getCurrentUrl()).toMatch(/as=guest&only=ends\+soon/)
    await owner.open(`${at}/people?as=guest&only=ends+soon`)
    await owner.sees('2 shown')
    await owner.press('Show everybody')
    await owner.sees('58 shown')
    await owner.press('Last active')
    expect(await owner.driver.getCurrentUrl()).toContain('sort=active')
  })

  test('is walked and selected by keyboard, a range at a time, and the effect comes before the act', async () => {
    await owner.open(`${at}/people?find=season&as=member`)
    await owner.sees('11 shown')
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
    await owner.press('Set an end …')
    await owner.fillDay('Their last day', end.day)
    await owner.sees('Set the end for 3 people')
    expect(await owner.barriers()).toEqual([])
    await owner.press('Set the end for 3 people')
    await owner.sees('The end of 3 people is set.')
    await owner.sees(`through ${end.words}`)
    await owner.press('Select everybody who is shown')
    await owner.sees('11 selected')
    await owner.press('Suspend …')
    await owner.sees('passed over')
    await owner.press('Put into a team …')
    await owner.choose('Into the team', 'Data Desk')
    await owner.sees('into Data Desk')
  })

  test('the list of acts leads anywhere, a slash to what finds', async () => {
    await owner.open(`${at}/people`)
    await owner.sees('shown')
    await owner.driver.actions().sendKeys('/').perform()
    expect(await owner.driver.executeScript('return document.activeElement.ariaLabel')).toBe('Find people')
    await owner.driver.executeScript('document.activeElement.blur()')
    await owner.driver.actions().sendKeys('a').perform()
    await owner.sees('Bring in a table of people')
    expect(await owner.barriers()).toEqual([])
    await owner.driver.actions().sendKeys('join link', Key.ENTER).perform()
    await owner.sees('Works through')
  })
})

describe('signing in', () => {
  test('a second step is set up, asked for, and got around by a recovery code', async () => {
    const davit = await demo.welcome('davit@marram.example')
    await davit.open('/account')
    await davit.fill('Your password', demoPassword)
    await davit.press('Set it up')
    await davit.sees('The code that it shows now')
    const secret = (await (await davit.field('The key')).getAttribute('value')) ?? ''
    await davit.fill('The code that it shows now', await generate({ secret }))
    await davit.press('Ask for it from now on')
    await davit.sees('Keep these recovery codes.')
    const code = await davit.driver.executeScript<string>(
      `return document.querySelector('[aria-label="Recovery codes"] li').innerText`,
    )
    expect(await davit.barriers()).toEqual([])
    await davit.press('I have kept them')
    await davit.sees('10 recovery codes are left.')
    const elsewhere = await demo.arrive()
    await elsewhere.open('/sign-in')
    await elsewhere.fill('Mail address', 'davit@marram.example')
    await elsewhere.fill('Password', demoPassword)
    await elsewhere.press('Sign in')
    await elsewhere.sees('One step more')
    await elsewhere.fill('Code', '000000')
    await elsewhere.press('Sign in')
    await elsewhere.sees('This code is not right')
    await elsewhere.fill('Code', code)
    await elsewhere.press('Sign in')
    await elsewhere.sees('Kept to me')
    await davit.open('/account')
    await davit.sees('9 recovery codes are left.')
    await davit.press('End all others')
    await elsewhere.open(at)
    await elsewhere.sees('Mail address')
  })

  test('a forgotten password is chosen anew by a mailed link', async () => {
    const pilar = await demo.arrive()
    await pilar.open('/sign-in')
    await pilar.fill('Mail address', 'pilar@marram.example')
    await pilar.follow('I have forgotten my password')
    await pilar.press('Send me a link')
    await pilar.sees('is on its way there')
    await pilar.open('/mailbox')
    await pilar.pressRow('pilar@marram.example')
    await pilar.open(
      await pilar.driver.executeScript<string>(`return document.querySelector('article a').href`),
    )
    await pilar.fill('New password', 'ringing in the small hours')
    expect(await pilar.barriers()).toEqual([])
    await pilar.press('Take this password')
    await pilar.sees('Your new password counts.')
    await pilar.fill('Mail address', 'pilar@marram.example')
    await pilar.fill('Password', 'ringing in the small hours')
    await pilar.press('Sign in')
    await pilar.sees('Kept to me')
  })
})

describe('teams', () => {
  test('a request is made, reaches the lead, and is decided with its effect', async () => {
    const nadim = await demo.welcome('jory@marram.example')
    await nadim.open(`${at}/teams/team-dunes`)
    await nadim.press('Ask to join …')
    await nadim.fill('A word to its leads', 'I walk there every week.')
    await nadim.press('Ask to join Dune Survey')
    await nadim.sees('a lead decides')
    const maren = await demo.welcome('maren@marram.example')
    await maren.open(`${at}/notices`)
    await maren.sees('Jory Tresk asks to join Dune Survey: “I walk there every week.”')
    await maren.open(`${at}/teams/team-dunes`)
    await maren.press('Let in: Jory Tresk')
    await maren.sees('gain')
    expect(await maren.barriers()).toEqual([])
    await maren.press('Let Jory Tresk in')
    await maren.sees('Jory Tresk is in Dune Survey now.')
    await nadim.sees('Leave')
  })

  test('several come in at once: pasted, from another team; and how one joins is changed', async () => {
    await owner.open(`${at}/teams/team-boats`)
    await owner.press('Add several: ticked, pasted, from another team')
    await owner.press('paste')
    await owner.paste('Names or addresses', 'Imke Fenwright\nliv@marram.example; Nobody Known')
    await owner.sees('Not known here: Nobody Known.')
    await owner.press('Put 2 people into Boats and Kit')
    await owner.sees('2 people came into Boats and Kit.')
    await owner.press('Change the team …')
    await owner.choose('How one joins', 'By request')
    await owner.press('Keep these settings')
    await owner.sees('Boats and Kit is changed.')
    await owner.sees('Members see it and ask; a lead decides.')
  })
})

test('a setting says what it does, shows its effect, and stands in the history', async () => {
  await owner.open(`${at}/settings/guests`)
  await owner.press('Change: What guests can have at most')
  await owner.choose('Level', 'Reader')
  await owner.sees('lose')
  expect(await owner.barriers()).toEqual([])
  await owner.press('Cap guests at this')
  await owner.sees('What guests can have at most: changed.')
  await owner.follow('Who changed what of this')
  await owner.sees('let guests have Reader at most')
})

test('a profile is one’s own, and an earlier handle still leads to it', async () => {
  const yara = await demo.welcome('yara@marram.example')
  await yara.open(`${at}/me`)
  await yara.press('Change the profile')
  await yara.fill('Handle', 'yara.e')
  await yara.fill('Title', 'Botanist and lichens')
  await yara.upload('Choose a picture', fileURLToPath(new URL('../web/index.html', import.meta.url)))
  await yara.sees('This is not a picture that can be read.')
  await yara.upload(
    'Choose a picture',
    fileURLToPath(new URL('../docs/screenshots/teams.png', import.meta.url)),
  )
  await yara.sees('No picture')
  await yara.misses('This is not a picture')
  expect(await yara.barriers()).toEqual([])
  await yara.press('Keep this profile')
  await yara.sees('@yara.e')
  await owner.open(`${at}/people/@yara.elmhirst`)
  await owner.sees('Botanist and lichens')
  await owner.sees('earlier @yara.elmhirst')
  const sides = await owner.driver.executeScript(
    `return [...document.querySelectorAll('aside img')].map(each => [each.naturalWidth, each.naturalHeight])`,
  )
  expect(sides).toEqual([[256, 256]])
})

test('everybody finds colleagues in the directory by what they do, and nothing of their standing', async () => {
  const imke = await demo.welcome('imke@marram.example')
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
  await imke.sees('It lasts through')
  const last = await imke.driver.executeScript<string>(`return document.querySelector('time').dateTime`)
  await imke.sees(`through ${dayInWords(Date.parse(last) - 1)}`)
  await imke.open('/account')
  await imke.choose('Dates are written in', 'German')
  await imke.driver.wait(() =>
    imke.driver.executeScript<boolean>(`return /^\\d+\\. /.test(document.querySelector('time').innerText)`),
  )
  await imke.open(`${at}/me`)
  await imke.sees(`through ${dayInWords(Date.parse(last) - 1, 'de-DE')}`)
})

test('leaving a place, a team and the workspace are three acts', async () => {
  const bridie = await demo.welcome('bridie@next-bay-trust.example')
  await bridie.sees('Photos')
  await bridie.press('Leave this place …')
  await bridie.sees('lose')
  await bridie.press('Leave Photos')
  await bridie.sees('You have left Photos.')
  expect(await bridie.barriers()).toEqual([])
  const finlo = await demo.welcome('finlo@marram.example')
  await finlo.open(`${at}/teams/team-boats`)
  await finlo.press('Leave Boats and Kit')
  await finlo.press('Leave the team')
  await finlo.sees('is out of Boats and Kit.')
  await finlo.open(`${at}/me`)
  await finlo.press('Leave Marram Coast Survey …')
  await finlo.sees('Your roles, teams and access end at once')
  expect(await finlo.barriers()).toEqual([])
  await finlo.press('Leave Marram Coast Survey')
  await finlo.sees('You are in no workspace now.')
})

test('somebody who alone keeps a team and places leaves; others take over, and an open tab is shut', async () => {
  const hedvig = await demo.welcome('aino@marram.example')
  await hedvig.open(`${at}/content`)
  await hedvig.sees('Kept to me')
  await owner.open(`${at}/people/person-aino`)
  await owner.press('Remove …')
  await owner.sees('leads Bird Counts alone')
  await owner.sees('alone gives access at Bird Counts')
  await owner.choose('Who takes over what they alone keep', 'Davit Orbel')
  await owner.sees('whoever leads the team next does too')
  await owner.sees('loses all access')
  expect(await owner.barriers()).toEqual([])
  await owner.press('Remove Aino Vuori')
  await owner.sees('Aino Vuori is removed.')
  const began = Date.now()
  await hedvig.sees('There is nothing here that you can open.')
  expect(Date.now() - began).toBeLessThan(2000)
  await owner.open(`${at}/teams/team-birds`)
  await owner.sees('Davit Orbel · lead')
  await owner.open(`${at}/oversight/history`)
  await owner.sees('removed Aino Vuori from the workspace')
})
