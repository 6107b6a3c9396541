import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { type OwnerOfDemo, ownerOfDemo } from './stage.ts'
import type { Visitor } from './visitor.ts'
import { dayAhead } from './days.ts'

/** How people come in: forty at once, by a table, from the outside, by a link. */
const at = '/at/marram-coast-survey'
const newPassword = 'tern and plover and knot'
const begin = dayAhead(90)
let demo: OwnerOfDemo
let owner: Visitor
let stranger: Visitor
const files = mkdtempSync(join(tmpdir(), 'noskel-tables-'))

beforeAll(async () => {
  demo = await ownerOfDemo()
  owner = demo.owner
  stranger = await demo.arrive()
})

afterAll(async () => {
  rmSync(files, { recursive: true, force: true })
  await demo.leave()
})

/** The link in the newest mail to an address, in the demo's mailbox. */
async function linkFor(visitor: Visitor, mail: string): Promise<string> {
  await visitor.open('/mailbox')
  await visitor.sees(mail)
  await visitor.pressRow(mail)
  return visitor.driver.executeScript<string>(`return document.querySelector('article a').href`)
}

describe('forty people before the season', () => {
  const many = Array.from(
    { length: 36 },
    (_, index) => `Helper ${index + 1} <helper${index + 1}@marram.example>`,
  )
  const mixed = [
    many.slice(0, 12).join(', '),
    many.slice(12, 24).join(';'),
    many.slice(24).join('\n'),
    'kit@marram.example KIT@marram.example',
    'lou@maram.example',
    'aino@marram.example; anton@marram.example; petra@marram.example; oskar@marram.example, nobody@',
  ].join('\n')

  test('each address is judged at once, and a slip is mended by one press', async () => {
    await owner.open(`${at}/people/invite`)
    await owner.paste('Mail addresses', mixed)
    await owner.sees('39 people to invite, 5 skipped')
    for (const verdict of [
      'here already',
      'suspended',
      'removed earlier',
      'invited already',
      'twice in the list',
    ])
      await owner.sees(verdict)
    await owner.sees('not an address')
    await owner.press('Use lou@marram.example')
    await owner.misses('maram')
  })

  test('what they get is put together by a welcome set, and looked through before it is sent', async () => {
    await owner.choose('Welcome set', 'Winter helpers')
    await owner.sees('Season Plan')
    await owner.sees('There are not enough seats')
    expect(await owner.canPress('Invite 39 people')).toBe(false)
    expect(await owner.barriers()).toEqual([])
    // Nothing typed is lost on the way to somewhere else and back.
    await owner.open(`${at}/people`)
    await owner.open(`${at}/people/invite`)
    await owner.sees('39 people to invite')
    await owner.tick('Guests')
    await owner.pick('Share a place', 'Tide Safety')
    await owner.choose('Level at Tide Safety', 'Commenter')
    await owner.fillDay('Starts', begin.day)
    await owner.fillDay('Ends after', dayAhead(310).day)
    await owner.fill('Message', 'See you on the beach.')
    await owner.sees('No seats are needed.')
    await owner.sees('no privileges in the workspace, only what is shared with them.')
    await owner.sees('Commenter')
    await owner.press('Invite 39 people')
    await owner.sees('39 invitations are sent.')
    await owner.sees('helper1@marram.example')
  })

  test('the mails are there, and the row of an invited person has all that can be done about it', async () => {
    const link = await linkFor(stranger, 'helper36@marram.example')
    await stranger.sees('See you on the beach.')
    await stranger.sees(`Your access starts on ${begin.words}`)
    await stranger.open(link)
    await stranger.sees('You can accept now.')
    await stranger.sees(`Your access lasts until ${dayAhead(310).words}`)
    await owner.open(`${at}/people?status=invited&find=helper35`)
    await owner.press('Withdraw: Helper 35')
    await owner.sees('The invitation of Helper 35 is withdrawn.')
    await owner.open(`${at}/people?status=invited&find=helper36`)
    await owner.press('Send again: Helper 36')
    await owner.sees('The invitation was sent again to helper36@marram.example.')
    expect(await owner.barriers()).toEqual([])
    await owner.press('Change: Helper 36')
    await owner.press('Copy invitation link')
    await owner.sees('Anybody with this link can join as this person.')
    await owner.fillDay('Ends after', dayAhead(340).day)
    expect(await owner.barriers()).toEqual([])
    await owner.press('Change invitation')
    await owner.sees('The invitation of Helper 36 is changed.')
    await owner.press('Send invitation again')
    await owner.sees('The invitation was sent again')
    await owner.press('Withdraw invitation')
    await owner.sees('The invitation of Helper 36 is withdrawn.')
  })

  test('their links work where somebody else is signed in, who is told so, and two in one tab are two', async () => {
    const [one, two] = ['helper20@marram.example', 'helper21@marram.example']
    const links = [await linkFor(owner, one), await linkFor(owner, two)]
    await owner.open(links[0] ?? '')
    await owner.sees(`this link is for ${one}`)
    // The same page but for what stands behind the #: it is not loaded again.
    await owner.open(links[1] ?? '')
    await owner.sees(`this link is for ${two}`)
    expect(await owner.barriers()).toEqual([])
    await owner.follow('Stay signed in as ilse@marram.example')
    await owner.sees('Marram Coast Survey')
  })
})

describe('a table', () => {
  const rows = [
    'Adresse;Name;Title;Teams;Colour',
    'ada@marram.example;Ada Lowe;"Ringer; first year";Volunteers;red',
    'aino@marram.example;Aino Vuori;Ornithologist and ringer;;',
    'ben@marram;Ben Holm;;;',
  ]

  test('is read, matched by hand, mended where it is wrong, brought in, and does nothing again', async () => {
    const file = join(files, 'people.csv')
    writeFileSync(file, Buffer.from(`\ufeff${rows.join('\r\n')}`, 'utf16le'))
    await owner.open(`${at}/people/import`)
    await owner.upload('CSV file', file)
    await owner.sees('3 rows, encoding UTF-16LE, separated by semicolons')
    await owner.sees('Choose the column with the mail address.')
    await owner.choose('Column Adresse', 'Mail')
    await owner.sees('1 new, 1 changed, 0 unchanged, 1 with errors')
    await owner.sees('title: Ornithologist → Ornithologist and ringer.')
    await owner.fill('Mail, row 4', 'ben@marram.example')
    await owner.sees('2 new, 1 changed')
    expect(await owner.barriers()).toEqual([])
    await owner.press('Import 3 rows')
    await owner.sees('3 rows imported.')
    await owner.upload('CSV file', file)
    await owner.sees('Choose the column with the mail address.')
    await owner.choose('Column Adresse', 'Mail')
    await owner.sees('2 unchanged, 1 with errors')
  })

  test('read in another encoding keeps what was matched and mended', async () => {
    const file = join(files, 'old.csv')
    writeFileSync(file, Buffer.from('Adresse;Name\r\nrene@marram;Ren\xe9 Holm', 'latin1'))
    await owner.upload('CSV file', file)
    await owner.sees('1 row, encoding WINDOWS-1252')
    await owner.choose('Column Adresse', 'Mail')
    await owner.fill('Mail, row 2', 'rene@marram.example')
    await owner.choose('Encoding', 'WINDOWS-1253')
    await owner.sees('1 row, encoding WINDOWS-1253')
    await owner.sees('1 new')
  })

  test('that is none is refused kindly', async () => {
    const file = join(files, 'people.png')
    writeFileSync(file, Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a]))
    await owner.upload('CSV file', file)
    await owner.sees('This is a picture, not a table.')
  })
})

describe('from the outside', () => {
  test('an address typed at a place comes in as its guest, and sees that place and nothing else', async () => {
    await owner.open(`${at}/content/node-tide-safety`)
    await owner.pick('Share with a person, team or address', 'skipper@nextport.example')
    await owner.sees('guest, only for this place')
    await owner.sees('member of the workspace')
    await owner.press('Invite and give Reader')
    await owner.sees('once they accept')
    await stranger.open(await linkFor(stranger, 'skipper@nextport.example'))
    await stranger.sees('invites you as a guest')
    await stranger.fill('Your name', 'Skip Larsen')
    await stranger.fill('Password', newPassword)
    await stranger.tick('I accept the house rules')
    await stranger.press('Accept invitation')
    await stranger.sees('Notifications')
    await stranger.sees('You are a guest here, invited by Ilse Brandt.')
    await stranger.sees('Your access has no end. If you have a question, ask Ilse Brandt.')
    await stranger.sees('Tide Safety')
    expect(await stranger.reads()).not.toMatch(/Sites|Season Plan|People|Settings/)
    expect(await stranger.barriers()).toEqual([])
    await stranger.open(`${at}/me`)
    await stranger.sees('Your contact: Ilse Brandt')
    expect(await stranger.barriers()).toEqual([])
  })

  test('all guests stand in one list with what they reach; one is extended, gets another contact, becomes a member', async () => {
    await owner.open(`${at}/people?as=guest&find=skip`)
    await owner.sees('Tide Safety')
    await owner.pressCell('Skip Larsen')
    await owner.press('Change')
    await owner.pick('Contact of Skip Larsen', 'Wiebke Aalders')
    await owner.sees('The contact of Skip Larsen is now Wiebke Aalders.')
    const end = dayAhead(190)
    await owner.press('Set end …')
    await owner.fillDay('Ends after, Skip Larsen', end.day)
    await owner.press('Set end')
    await owner.sees(`Until ${end.words}`)
    await owner.press('Turn into a member …')
    await owner.press('Turn Skip Larsen into a member')
    await owner.sees('Skip Larsen is now a member.')
  })

  test('somebody with an account makes a workspace of their own, and another joins it and switches', async () => {
    const aino = await demo.welcome('aino@marram.example')
    await aino.open('/workspaces')
    await aino.press('Create workspace …')
    await aino.fill('Name of the workspace', 'Night Herons')
    await aino.press('Create workspace')
    await aino.sees('My private folder')
    await aino.open('/at/night-herons/people/invite')
    await aino.paste('Mail addresses', 'ilse@marram.example')
    await aino.press('Invite 1 person')
    await aino.sees('1 invitation is sent.')
    await owner.open('/workspaces')
    await owner.sees('invites you to Night Herons')
    expect(await owner.barriers()).toEqual([])
    await owner.press('Join')
    await owner.sees('My private folder')
    expect(await owner.reads()).not.toMatch(/Marram|Sites/)
    await owner.press('Night Herons')
    await owner.follow('Marram Coast Survey')
    await owner.sees('Season Plan')
  })

  test('a welcome set shows what a change of it does, and who else’s link holds it fast', async () => {
    await owner.open(`${at}/people/onboarding`)
    await owner.pressCell('Lab visitors')
    await owner.sees('Description')
    await owner.pick('Share a place', 'Tide Safety')
    await owner.choose('Level at Tide Safety', 'Commenter')
    await owner.sees('Tide Safety: No access → Commenter')
    expect(await owner.barriers()).toEqual([])
    await owner.press('Save changes')
    await owner.sees('The welcome set Lab visitors is changed.')
    await owner.sees('2 places')
    // The link is Ilse’s, and gives by her rights.
    const wiebke = await demo.welcome('wiebke@marram.example')
    await wiebke.open(`${at}/people/onboarding`)
    await wiebke.pressCell('Winter helpers')
    await wiebke.sees('Somebody else’s join link uses this set')
    expect(await wiebke.barriers()).toEqual([])
    await wiebke.press('Delete welcome set')
    await wiebke.sees('This welcome set is in use.')
    // Whoever held the link of an invitation would come in as that person.
    await owner.open(`${at}/people?status=invited&find=bram`)
    await owner.sees('Copy link')
    await wiebke.open(`${at}/people?status=invited&find=bram`)
    await wiebke.sees('Send again')
    await wiebke.misses('Copy link')
  })

  test('by a join link one gives an address, and the way in comes by mail', async () => {
    await owner.open(`${at}/people/onboarding/new-link`)
    await owner.fill('Name', 'College visit')
    await owner.fill('Only addresses of', 'college.example')
    await owner.fill('Number of people, at most', '5')
    await owner.tick('Volunteers')
    await owner.sees('In Volunteers')
    expect(await owner.barriers()).toEqual([])
    await owner.press('Create join link')
    await owner.sees('Nobody has used it yet.')
    const link = await (await owner.field('Join link')).getAttribute('value')
    const visitor = await demo.arrive()
    await visitor.open(link ?? '')
    await visitor.sees('Ilse Brandt invites you to join as a member, with access to 1 team')
    await visitor.fill('Your mail address', 'x@elsewhere.example')
    await visitor.press('Send me the invitation')
    await visitor.sees('Members need an address of college.example.')
    await visitor.fill('Your mail address', 'rosa@college.example')
    await visitor.press('Send me the invitation')
    await visitor.sees('Open your mail')
    expect(await visitor.barriers()).toEqual([])
    await visitor.open(await linkFor(visitor, 'rosa@college.example'))
    await visitor.sees('Join Marram Coast Survey')
    await visitor.sees('Volunteers')
    await owner.sees('1 person joined by it.')
  })
})
