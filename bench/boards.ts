import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { Key } from 'selenium-webdriver'
import { QueryTypes, Sequelize } from 'sequelize'
import { emptyBoard, type RowRead, withRows } from '#core/boards/data.ts'
import type { RowsView } from '#contract/views/boards.ts'
import { largeOwner, nodeId } from '#demo/large.ts'
import { demoPassword } from '#demo/scenario/people.ts'
import { Visitor } from '#e2e/visitor.ts'
import { board, columnId, columns, rowId, rowName, rowsOfBoard, seedBoard, valuesOf } from './board.ts'
import { type Floor, middle, once, type Reading, readingsOn, timed } from './measure.ts'
import { writingRows } from './large-server.ts'
import { copyOfLarge } from './seeded.ts'
import { type Client, sent, signedIn, startServed } from './served.ts'

/**
 * A board of 100,000 rows and 20 columns over HTTP on a real file, in a process of its own, beside a database that
 * somebody would ask the same in SQL: a table of that board, a column for each.
 */

const size = `${rowsOfBoard.toLocaleString('en')} rows, 20 columns`
const reading = readingsOn(size)

export async function boardReadings(): Promise<Reading[]> {
  const dataDir = await copyOfLarge('S')
  await seedBoard(dataDir)
  const served = await startServed(dataDir, { hasPages: true })
  const client = await signedIn(served.address, 'owner')
  const rival = await asTable()
  try {
    const fixed = fixedFloor(served.fixedAddress, client)
    await indexed(client)
    const { memory: before } = await served.noted()
    const opened = await once(() => ask(client, '/rows?count=100'))
    const readings = [
      reading('board.cold', opened, {
        what: 'the table of that board read whole',
        value: await rival.whole(),
      }),
      ...(await looks(client, { fixed, rival })),
      ...(await writes(client)),
    ]
    const { memory: after } = await served.noted()
    return [
      ...readings,
      { id: 'board.memory', size, unit: 'bytes', value: await bytesPerCell() },
      { id: 'board.memory.process', size, unit: 'MiB', value: after - before },
      ...(await inChromium(served.address)),
    ]
  } finally {
    await rival.close()
    await served.stop()
  }
}

const path = (rest: string) => `/nodes/${board}/board${rest}`

async function ask<T>({ address, cookie }: Client, rest: string): Promise<T> {
  const response = await fetch(`${address}/api/at/large${path(rest)}`, { headers: { cookie } })
  if (!response.ok) throw new Error(`${rest}: ${await response.text()}`)
  return (await response.json()) as T
}

/** What is indexed in the background would be measured, too. */
async function indexed({ address, cookie }: Client): Promise<void> {
  for (;;) {
    const response = await fetch(`${address}/api/at/large/search?find=visit`, { headers: { cookie } })
    const found = (await response.json()) as { readonly indexed: number }
    if (found.indexed === 1) return
    await new Promise(resolve => setTimeout(resolve, 1000))
  }
}

/** An answer of the same bytes through the same stack. */
function fixedFloor(address: string, { cookie }: Client): (bytes: number) => Promise<Floor> {
  return async bytes => ({
    what: 'the same stack with a fixed body of that size',
    value: await timed(async () => {
      const response = await fetch(`${address}/api/fixed?bytes=${bytes}`, { headers: { cookie } })
      await response.text()
    }),
  })
}

interface Beside {
  readonly fixed: ReturnType<typeof fixedFloor>
  readonly rival: Awaited<ReturnType<typeof asTable>>
}

let turn = 0
/** Never the same question twice: what was worked out for one is kept. */
const least = (): string => String((turn += 1) % 4000)

async function looks(client: Client, { fixed, rival }: Beside): Promise<Reading[]> {
  const window = () => ask<RowsView>(client, '/rows?count=100')
  const bytes = JSON.stringify(await window()).length
  const [state, amount, day] = [columnId(1), columnId(7), columnId(4)]
  const where = () => `where=${state}~is~s1;${amount}~%253E~${least()}`.replaceAll('~', '%7E')
  const filtered = () => ask(client, `/rows?${where()}&sort=${day}&group=none&count=100`)
  const grouped = () =>
    ask(client, `/rows?where=${amount}%7E%253E%7E${least()}&group=${state}&sort=${day}&count=100`)
  const totals = () => ask(client, `/totals?where=${amount}%7E%253E%7E${least()}`)
  const far = () => ask(client, `/rows?from=${20_000 + (turn += 100)}&count=100`)
  return [
    reading('board.window', await timed(window), await fixed(bytes)),
    reading('board.far', await timed(far), await fixed(bytes)),
    reading('board.filter', await timed(filtered, 15), {
      what: 'the same in SQL',
      value: await rival.filter(),
    }),
    reading('board.group', await timed(grouped, 15), { what: 'the same in SQL', value: await rival.group() }),
    reading('board.totals', await timed(totals, 15), {
      what: 'the same in SQL',
      value: await rival.totals(),
    }),
  ]
}

async function writes(client: Client): Promise<Reading[]> {
  const cells = (rows: number, each: number) =>
    Array.from({ length: rows * each }, (_, at) => ({
      row: rowId(1000 + Math.floor(at / each)),
      column: columnId(7 + (at % 5)),
      value: (turn += 1) % 9000,
      seen: Date.now(),
    }))
  const write = async (rows: number, each: number) => {
    const response = await sent(client, path('/cells'), { body: { cells: cells(rows, each) } })
    if (!response.ok) throw new Error(await response.text())
    await response.text()
  }
  const seen = async () => {
    await write(1, 1)
    await ask(client, '/rows?count=100')
  }
  return [
    reading('board.cell', await timed(() => write(1, 1), 15), {
      what: 'three plain rows in a transaction',
      value: await writingRows(3, 1),
    }),
    reading('board.cell.asked', await timed(seen, 15), {
      what: 'three plain rows in a transaction',
      value: await writingRows(3, 1),
    }),
    reading('board.paste', await timed(() => write(1000, 5), 5), {
      what: 'as many rows as that writes, plain, in a transaction',
      value: await writingRows(2000, 1),
    }),
  ]
}

/** What a board takes as it is held, by the cells that are filled. */
async function bytesPerCell(): Promise<number> {
  const rows = Array.from({ length: rowsOfBoard }, (_, nth): RowRead => ({
    id: rowId(nth),
    name: rowName(nth),
    order: nth,
    section: null,
    serial: nth + 1,
    madeAt: 1,
    maker: 'p0',
    cells: Object.fromEntries(valuesOf(nth).map(([column, value]) => [column, [value, 1, 'p0']])),
  }))
  const used = async () => {
    for (let times = 0; times < 3; times += 1) {
      globalThis.gc?.()
      await new Promise(resolve => setTimeout(resolve, 50))
    }
    const { heapUsed, arrayBuffers } = process.memoryUsage()
    return heapUsed + arrayBuffers
  }
  const empty = emptyBoard([{ id: 'name', kind: 'text', settings: {} }, ...columns])
  const before = await used()
  const held = withRows(empty, { rows, gone: [] })
  const after = await used()
  if (held.size !== rowsOfBoard) throw new Error('the board is not whole')
  return (after - before) / (rowsOfBoard * 20)
}

/** The board as somebody would have it in a database of their own. */
async function asTable() {
  const folder = mkdtempSync(join(tmpdir(), 'noskel-rival-'))
  const database = new Sequelize({ dialect: 'sqlite', storage: join(folder, 'rival.sqlite'), logging: false })
  const names = columns.map((_, nth) => `c${nth}`)
  const typeOf = (nth: number) => (columns[nth]?.kind === 'number' ? 'REAL' : 'TEXT')
  await database.query(
    `CREATE TABLE visits (id TEXT PRIMARY KEY, name TEXT, ${names.map((name, nth) => `${name} ${typeOf(nth)}`).join(', ')})`,
  )
  await database.transaction(async transaction => {
    for (let from = 0; from < rowsOfBoard; from += 500) {
      const rows = Array.from({ length: 500 }, (_, at) => {
        const values = new Map<string, unknown>(valuesOf(from + at))
        return [rowId(from + at), rowName(from + at), ...columns.map(({ id }) => plain(values.get(id)))]
      })
      await database.query(
        `INSERT INTO visits VALUES ${rows.map(row => `(${row.map(() => '?').join(',')})`).join(',')}`,
        {
          replacements: rows.flat(),
          transaction,
        },
      )
    }
  })
  const select = (sql: string) => () =>
    database.query(sql.replaceAll('LEAST', least()), { type: QueryTypes.SELECT })
  const sums = columns.flatMap(({ kind }, nth) => {
    if (kind === 'number') return [`sum(c${nth}), avg(c${nth}), min(c${nth}), max(c${nth}), count(c${nth})`]
    if (kind === 'date') return [`min(c${nth}), max(c${nth}), count(c${nth})`]
    return [`count(c${nth})`]
  })
  const each = ['c1', 'c2', 'c3', 'c17'].map(
    name => `SELECT ${name}, count(*) FROM visits WHERE c7 > LEAST GROUP BY ${name}`,
  )
  return {
    whole: () => once(select('SELECT * FROM visits')),
    filter: () =>
      timed(async () => {
        await select("SELECT * FROM visits WHERE c1 = 's1' AND c7 > LEAST ORDER BY c4 LIMIT 100")()
        await select("SELECT count(*) FROM visits WHERE c1 = 's1' AND c7 > LEAST")()
      }),
    group: () =>
      timed(async () => {
        await select('SELECT * FROM visits WHERE c7 > LEAST ORDER BY c1, c4 LIMIT 100')()
        await select('SELECT c1, count(*) FROM visits WHERE c7 > LEAST GROUP BY c1')()
      }),
    totals: () =>
      timed(async () => {
        await select(`SELECT ${sums.join(', ')} FROM visits WHERE c7 > LEAST`)()
        for (const sql of each) await select(sql)()
      }),
    close: async () => {
      await database.close()
      rmSync(folder, { recursive: true, force: true })
    },
  }
}

const plain = (value: unknown): unknown =>
  value === undefined
    ? null
    : value === true
      ? 1
      : typeof value === 'object' && value !== null
        ? JSON.stringify(value)
        : value

/** Opening, scrolling, and a cell from the key in one browser to the other. */
async function inChromium(address: string): Promise<Reading[]> {
  const arrive = async () => {
    const visitor = await Visitor.arrive(address)
    await visitor.signIn(largeOwner.mail, demoPassword)
    return visitor
  }
  const [one, other] = [await arrive(), await arrive()]
  try {
    const taken: number[] = []
    for (let times = 0; times < 6; times += 1) taken.push(await opening(one))
    const frames = await frameReadings(one)
    await one.open(at(board))
    await one.sees(rowName(3))
    await other.open(at(board))
    await other.sees(rowName(3))
    const across: number[] = []
    for (let times = 0; times < 12; times += 1) across.push(await acrossBrowsers(one, other, times))
    return [
      // The first time its part of the code is fetched.
      { id: 'board.page', size, unit: 'ms', value: middle(taken.slice(1)) },
      ...frames,
      { id: 'board.cell.other', size, unit: 'ms', value: middle(across) },
    ]
  } finally {
    await one.close()
    await other.close()
  }
}

/** A quick turn of the wheel, and a screen in two frames: nobody reads any of that. */
const [byWheel, byBar] = [120, 400]

async function frameReadings({ driver }: Visitor): Promise<Reading[]> {
  const frames = (step: number) => driver.executeAsyncScript<[number, number]>(scrolling, step)
  await frames(byWheel)
  const [longest, usual] = await frames(byWheel)
  const [, fast] = await frames(byBar)
  await driver.executeScript(withoutCode)
  await frames(byWheel)
  const [longestStill, usualStill] = await frames(byWheel)
  const [, fastStill] = await frames(byBar)
  const beside = (value: number): Floor => ({ what: 'rows that no code draws, scrolled alike', value })
  return [
    reading('board.frames', longest, beside(longestStill)),
    reading('board.frames.usual', usual, beside(usualStill)),
    reading('board.frames.fast', fast, beside(fastStill)),
  ]
}

const at = (node: string): string => `/at/large/content/${node}`

/** Tells of the frame in which a text stands in the table; to look each frame would take what is measured. */
const whenDrawn = `
  const whenDrawn = (text, tell) => {
    const watching = new MutationObserver(() => {
      if (!document.querySelector('[role=grid]')?.textContent.includes(text)) return
      watching.disconnect()
      requestAnimationFrame(tell)
    })
    watching.observe(document.body, { subtree: true, childList: true, characterData: true })
  }`

/** From the click on the board, where one is in what it lies in, to its first rows. */
async function opening(visitor: Visitor): Promise<number> {
  await visitor.open(at(nodeId(1)))
  await visitor.sees('Visits')
  return visitor.driver.executeAsyncScript<number>(
    `const [address, name, done] = arguments
     const began = performance.now()
     ${whenDrawn}
     whenDrawn(name, () => done(performance.now() - began))
     document.querySelector('a[href="' + address + '"]').click()`,
    at(board),
    rowName(3),
  )
}

/** The longest frame and the middle one, of 180 that each scroll by so many pixels; once it has drawn all parts of the page. */
const scrolling = `const [step, done] = arguments
  const grid = document.querySelector('[role=grid]')
  const taken = []
  let last = performance.now()
  const frame = now => {
    taken.push(now - last)
    last = now
    grid.scrollTop += step
    if (taken.length < 184) return requestAnimationFrame(frame)
    const sorted = taken.slice(4).sort((a, b) => a - b)
    // Frames come in whole refreshes of the screen.
    done([Math.round(sorted.at(-1)), Math.round(sorted[90])])
  }
  requestAnimationFrame(frame)`

/** The same rows as they are drawn, of which no code draws any: what the browser takes by itself. */
const withoutCode = `
  const grid = document.querySelector('[role=grid]')
  const still = document.createElement('div')
  still.className = grid.className
  still.setAttribute('role', 'grid')
  still.style.cssText = 'height:' + grid.clientHeight + 'px;width:' + grid.clientWidth + 'px;overflow:auto;position:relative'
  const rows = [...grid.querySelectorAll('[role=row][aria-rowindex]')].slice(1, 31)
  const inner = document.createElement('div')
  inner.style.cssText = 'position:relative;width:4000px;height:' + 3000 * 30 + 'px'
  for (let nth = 0; nth < 3000; nth += 1) {
    const row = rows[nth % rows.length].cloneNode(true)
    row.style.top = nth * 30 + 'px'
    inner.append(row)
  }
  still.append(inner)
  document.body.replaceChildren(still)`

/** From the key that confirms a name to its being drawn where somebody else looks. */
async function acrossBrowsers(one: Visitor, other: Visitor, times: number): Promise<number> {
  const wanted = `Visit anew ${times}`
  await other.driver.executeScript(
    `window.seenAt = 0
     ${whenDrawn}
     whenDrawn(arguments[0], () => (window.seenAt = Date.now()))`,
    wanted,
  )
  await one.driver.executeScript(
    `document.querySelector('[role=grid]').focus()
     window.addEventListener('keydown', event => { if (event.key === 'Enter') window.pressedAt = Date.now() }, { capture: true })`,
  )
  await one.driver
    .actions()
    .keyDown(Key.CONTROL)
    .sendKeys(Key.HOME)
    .keyUp(Key.CONTROL)
    .sendKeys(Key.F2)
    .perform()
  const field = await one.field('Name')
  await field.sendKeys(Key.chord(Key.CONTROL, 'a'), wanted, Key.ENTER)
  await other.driver.wait(() => other.driver.executeScript<boolean>('return window.seenAt > 0'), 10_000)
  const pressed = await one.driver.executeScript<number>('return window.pressedAt')
  return (await other.driver.executeScript<number>('return window.seenAt')) - pressed
}
