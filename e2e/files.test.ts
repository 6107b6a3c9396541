import { createHash, randomBytes } from 'node:crypto'
import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { By, Key } from 'selenium-webdriver'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { type OwnerOfDemo, ownerOfDemo } from './stage.ts'
import type { Visitor } from './visitor.ts'

/** Files as people bring them, look at them and take them; and what is found by its words. */
const at = '/at/marram-coast-survey'
const photos = `${at}/content/node-sites-gull-sands-photos`
let demo: OwnerOfDemo
let owner: Visitor
let disk: string

beforeAll(async () => {
  demo = await ownerOfDemo()
  owner = demo.owner
  disk = mkdtempSync(join(tmpdir(), 'noskel-disk-'))
  mkdirSync(join(disk, 'Spring', 'Posts'), { recursive: true })
  for (const [name, text] of [
    ['Spring/tides.csv', 'day,low\n2026-05-04,06:12\n'],
    ['Spring/Posts/first.txt', 'The first post leans'],
    ['Spring/Posts/second.txt', 'The second post is gone'],
    ['notes.md', '# Barnacles\n\nOn every post.\n'],
  ] as const)
    writeFileSync(join(disk, name), text)
  writeFileSync(join(disk, 'film.bin'), randomBytes(30 * 1024 ** 2))
  writeFileSync(join(disk, 'large.bin'), Buffer.alloc(11 * 1024 ** 2))
  writeFileSync(join(disk, 'other.bin'), randomBytes(30 * 1024 ** 2))
})

afterAll(async () => {
  await demo.leave()
  rmSync(disk, { recursive: true, force: true })
})

/** Picks from the disk, as the dialog of the system would. */
const pick = async (visitor: Visitor, names: readonly string[], which = 'input[type=file][multiple]') => {
  await visitor.driver.wait(async () => (await visitor.driver.findElements(By.css(which))).length > 0, 10_000)
  const [input] = await visitor.driver.findElements(By.css(which))
  await input?.sendKeys(names.map(each => join(disk, each)).join('\n'))
}

interface DevTools {
  sendDevToolsCommand: (command: string, parameters: object) => Promise<void>
}

/** A line that takes so many bytes a second from here. */
async function slowLine(visitor: Visitor, bytes: number): Promise<void> {
  const tools = visitor.driver as unknown as DevTools
  await tools.sendDevToolsCommand('Network.enable', {})
  await tools.sendDevToolsCommand('Network.emulateNetworkConditions', {
    offline: false,
    latency: 0,
    downloadThroughput: -1,
    uploadThroughput: bytes,
  })
}

describe('bringing files', () => {
  test('a whole folder lies as it did on the disk', async () => {
    await owner.open(photos)
    await owner.sees('Upload a folder …')
    await pick(owner, ['Spring'], 'input[webkitdirectory]')
    // One of that name is there already: it is used, not doubled.
    await owner.sees('3 files are uploaded')
    await owner.follow('Spring')
    await owner.sees('tides.csv')
    await owner.sees('Landward post.jpg')
    await owner.followPart('Posts')
    await owner.sees('second.txt')
    await owner.followPart('first.txt')
    await owner.sees('The first post leans')
    expect(await owner.barriers()).toEqual([])
  })

  test('paused, the server restarted, gone on; one cancelled; the bytes are the same', async () => {
    await owner.open(photos)
    await owner.sees('Upload files …')
    await slowLine(owner, 4e6)
    await pick(owner, ['film.bin', 'other.bin'])
    await owner.press('Show files')
    await owner.driver.wait(async () => (await progress('film.bin')) > 0.2, 20_000)
    expect(await owner.barriers()).toEqual([])
    await owner.press('Cancel: other.bin')
    await owner.press('Pause: film.bin')
    await owner.sees('paused')
    const before = await progress('film.bin')
    await demo.server.restart()
    await slowLine(owner, -1)
    await owner.press('Resume: film.bin')
    await owner.sees('1 file is uploaded')
    expect(before).toBeGreaterThan(0.1)
    await owner.press('Close')
    await owner.followPart('film.bin')
    await owner.sees('30 MB')
    await owner.sees('Files of this kind are not shown here.')
    expect(await bytesOfOpen(owner)).toBe(sha256(readFileSync(join(disk, 'film.bin'))))
  })

  test('a page that was closed is given its file again, and no other one', async () => {
    await owner.open(photos)
    await slowLine(owner, 2e6)
    await pick(owner, ['other.bin'])
    await owner.press('Show files')
    await owner.driver.wait(async () => (await progress('other.bin')) > 0.2, 20_000)
    await owner.press('Pause: other.bin')
    await owner.sees('paused')
    await owner.open(photos)
    await owner.sees('1 waiting for you')
    await slowLine(owner, -1)
    await owner.press('Show files')
    const inBar = 'section[aria-label=Uploads] input[type=file]'
    await pick(owner, ['film.bin'], inBar)
    await owner.sees('That is another file: this one is called other.bin')
    await pick(owner, ['other.bin'], inBar)
    await owner.sees('1 file is uploaded')
    await owner.press('Close')
  })

  test('dropped and pasted; one of the same name becomes a version; one too large is refused before its first byte', async () => {
    await owner.open(photos)
    await owner.sees('Upload files …')
    await hand(owner, 'drop', { name: 'dropped.txt', text: 'By boat' })
    await owner.sees('1 file is uploaded')
    await hand(owner, 'paste', { name: 'pasted.txt', text: 'On foot' })
    await owner.sees('2 files are uploaded')
    await hand(owner, 'drop', { name: 'dropped.txt', text: 'By a larger boat' })
    await owner.sees('A file with this name is there already.')
    await owner.press('Upload as new version: dropped.txt')
    await owner.sees('3 files are uploaded')
    await owner.press('Close')
    await owner.followPart('dropped.txt')
    await owner.sees('By a larger boat')
    await owner.sees('2 versions so far')
    await owner.open(`${at}/settings/files`)
    await owner.press('Change: Largest file')
    await owner.choose('Largest file', '10 MB')
    await owner.press('Allow files up to 10 MB')
    await owner.sees('Largest file changed.')
    await owner.open(photos)
    await pick(owner, ['large.bin', 'notes.md'])
    await owner.sees('This file is larger than files may be in this workspace.')
    await owner.sees('1 file is uploaded, 1 refused')
    expect(await owner.barriers()).toEqual([])
    await owner.press('Close')
  })

  const progress = async (name: string): Promise<number> => {
    const [bar] = await owner.driver.findElements(By.css(`[role=progressbar][aria-label="${name}"]`))
    return bar === undefined ? 0 : Number(await bar.getAttribute('aria-valuenow')) / 100
  }
})

const sha256 = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest('hex')

/** What the page that is open gives, as one string of its hash. */
const bytesOfOpen = (visitor: Visitor): Promise<string> =>
  visitor.driver.executeAsyncScript<string>(`const done = arguments[0]
    fetch(document.querySelector('a[download]').href).then(answer => answer.arrayBuffer())
      .then(bytes => crypto.subtle.digest('SHA-256', bytes))
      .then(hash => done(Array.from(new Uint8Array(hash), each => each.toString(16).padStart(2, '0')).join('')))`)

/** Drops or pastes a file on the open place. */
const hand = (
  visitor: Visitor,
  how: 'drop' | 'paste',
  { name, text }: { name: string; text: string },
): Promise<void> =>
  visitor.driver.executeScript(
    `const [how, name, text] = arguments
    const data = new DataTransfer()
    data.items.add(new File([text], name))
    const event = how === 'drop'
      ? new DragEvent('drop', { bubbles: true, cancelable: true, dataTransfer: data })
      : new ClipboardEvent('paste', { bubbles: true, cancelable: true, clipboardData: data })
    document.querySelector('main').dispatchEvent(event)`,
    how,
    name,
    text,
  )

describe('looking at files', () => {
  const letter = `${at}/content/node-permits-and-consents-letter-0la2yvi`

  test('a PDF in the page, its words to be read; two versions beside each other, the earlier one restored', async () => {
    await owner.open(letter)
    await owner.sees('Page 1 of 2')
    const words = () =>
      owner.driver.executeScript<string>(`return document.querySelector('figure svg')?.textContent ?? ''`)
    await owner.driver.wait(
      async () => (await words()).includes('six') || (await words()).includes('five days'),
      10_000,
    )
    expect(await owner.barriers()).toEqual([])
    await owner.press('Versions')
    await owner.tick('Show version 1')
    await owner.tick('Show version 2')
    await owner.sees('Page 1 of 2')
    const pagesOfBoth = By.css('section[aria-label^="Version "] figure')
    await owner.driver.wait(
      async () => (await owner.driver.findElements(pagesOfBoth)).length === 4,
      10_000,
      'two pages of each of two versions',
    )
    expect(await owner.barriers()).toEqual([])
    await owner.press('Restore')
    await owner.sees('Version 1 is the newest again, as version 3.')
    await owner.sees('3 versions so far')
  })

  test('who may only look sees it marked, and finds nothing to download', async () => {
    await owner.open(`${at}/settings/publishing`)
    await owner.press('Change: Marked previews')
    await owner.tick('Name and day stand across previews')
    await owner.press('Mark previews')
    await owner.sees('Marked previews changed.')
    const reviewer = await demo.welcome('rosamund@coastfund.example')
    await reviewer.open(`${at}/content/node-funder-report-photographs-f-16kkt7r`)
    await reviewer.sees('You can look at this file here.')
    await reviewer.sees('What you see is marked “Rosamund Quill, ')
    expect(await reviewer.reads()).not.toContain('Download')
    expect(await reviewer.barriers()).toEqual([])
    const status = await reviewer.driver.executeAsyncScript<number>(
      `const done = arguments[0]
      fetch('/api${at}/nodes/node-funder-report-photographs-f-16kkt7r/file/bytes').then(answer => done(answer.status))`,
    )
    expect(status).toBe(403)
  })
})

describe('finding', () => {
  const keys = (...some: string[]) =>
    owner.driver
      .actions()
      .sendKeys(...some)
      .perform()

  const everything = 'Search everything you can see'

  test('a slash finds as one types, by keyboard alone: places, what is written, files, people, commands', async () => {
    await owner.open(`${at}/content`)
    await owner.sees('Sites')
    await keys('/')
    await owner.sees('Arrow keys choose')
    await keys(Key.ESCAPE)
    await owner.misses('Arrow keys choose')
    // Whoever types fast does not wait for the field.
    await keys('/whistle')
    await owner.sees('Crossing the channel')
    await owner.sees('Nobody crosses after the second whistle')
    expect(await owner.barriers()).toEqual([])
    await owner.fill(everything, 'barnacles')
    await owner.sees('notes.md')
    await owner.fill(everything, 'tomas')
    await owner.sees('Tomas Reuss')
    await owner.fill(everything, 'invite people')
    await owner.sees('Commands')
    await owner.fill(everything, 'method north')
    await owner.sees('All results')
    await owner.fill(everything, 'crossing')
    await owner.sees('Crossing the channel, next version')
    await keys(Key.ENTER)
    await owner.driver.wait(async () => (await owner.driver.getTitle()).startsWith('Crossing'), 10_000)
  })

  test('the field says what the address says, by whichever way one comes there', async () => {
    const field = async () =>
      (await owner.driver.findElement(By.css('main input[aria-label="Search for"]'))).getAttribute('value')
    await owner.open(`${at}/search?find=post`)
    await owner.sees('Post positions')
    await owner.driver.findElement(By.css('button[aria-keyshortcuts="/"]')).click()
    await owner.fill(everything, 'barnacles')
    await owner.sees('All results for “barnacles”')
    await owner.driver.findElement(By.xpath('//*[@role="option"][contains(., "All results")]')).click()
    await owner.driver.wait(async () => (await field()) === 'barnacles', 10_000)
    await owner.sees('notes.md')
    await owner.driver.navigate().back()
    await owner.sees('Post positions')
    expect(await field()).toBe('post')
    await owner.open(`${at}/search?find=barnacles&kind=folder`)
    await owner.follow('Search for it without conditions')
    await owner.sees('notes.md')
  })

  test('conditions combine and stand in the address; whoever opens it finds what they may see', async () => {
    await owner.open(`${at}/search?find=post`)
    await owner.sees('Post positions')
    await owner.choose('What', 'files')
    await owner.pick('In which place', 'Gull Sands')
    await owner.sees('first.txt')
    await owner.driver.wait(async () => !(await owner.reads()).includes('Post positions'), 10_000)
    const url = new URL(await owner.driver.getCurrentUrl())
    expect([url.searchParams.get('kind'), url.searchParams.get('in')]).toEqual([
      'file',
      'node-sites-gull-sands',
    ])
    expect(await owner.barriers()).toEqual([])
    const guest = await demo.welcome('rosamund@coastfund.example')
    await guest.open(`${at}/search?find=barnacles`)
    await guest.sees('Nothing found for “barnacles”.')
    await guest.open(`${at}/search?find=marsh`)
    await guest.sees('Marsh at dawn.tif')
  })
})

test('storage tells what takes the room', async () => {
  await owner.open(`${at}/settings/storage`)
  await owner.sees('used, no quota')
  await owner.sees('film.bin')
  await owner.press('Not used for a year')
  await owner.sees('Every file was used in the last year.')
  expect(await owner.barriers()).toEqual([])
})
