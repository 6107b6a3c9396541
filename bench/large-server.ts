import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { DataTypes, Sequelize } from 'sequelize'
import { largeOwner, type Size } from '#demo/large.ts'
import { demoPassword } from '#demo/scenario/people.ts'
import { Visitor } from '#e2e/visitor.ts'
import { seedLarge } from '../scripts/seed-large.ts'
import { type Floor, once, timed } from './measure.ts'
import { configFor } from './seeded.ts'
import { sessionCookieIn } from './session-cookie.ts'
import { builtWeb, quietServer } from './quiet-server.ts'

/** A large workspace on a real file behind the real server, with its owner signed in. */
export async function openLarge(size: Size) {
  const dataDir = mkdtempSync(join(tmpdir(), 'noskel-bench-'))
  const config = configFor(dataDir)
  await seedLarge(config, size, () => {})
  const running = await quietServer(dataDir, builtWeb)
  let cookie = ''
  let csrf = ''
  const call = async <T>(method: string, path: string, body?: unknown): Promise<T> => {
    const response = await fetch(`${running.address}/api${path}`, {
      method,
      headers: { cookie, 'content-type': 'application/json', 'x-noskel-csrf': csrf },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
    })
    cookie = sessionCookieIn(response.headers) || cookie
    const text = await response.text()
    if (!response.ok) throw new Error(`${path}: ${text.slice(0, 300)}`)
    return path.endsWith('.csv') ? (text as T) : (JSON.parse(text) as T)
  }
  const signIn = { mail: largeOwner.mail, password: demoPassword }
  csrf = (await call<{ csrf: string }>('POST', '/session', signIn)).csrf
  const arrive = async () => {
    const visitor = await Visitor.arrive(running.address)
    await visitor.signIn(largeOwner.mail, demoPassword)
    return visitor
  }
  const stop = async () => {
    await running.stop()
    rmSync(dataDir, { recursive: true, force: true })
  }
  return {
    dataDir,
    cookie: () => cookie,
    call,
    get: (path: string) => () => call('GET', `/at/large${path}`),
    arrive,
    stop,
  }
}

/** Opens a page and waits until a text of it is drawn. */
export const opening = (visitor: Visitor, path: string, text: string) => async () => {
  await visitor.open(path)
  await visitor.sees(text)
}

/** What no page opens faster than. */
export const emptyPage = async (visitor: Visitor): Promise<Floor> => ({
  what: 'opening a page that lists nothing',
  value: await timed(opening(visitor, '/account', 'Two-step sign-in'), 5),
})

/** Plain rows into an empty file, in so many transactions: what no writing of ours can be faster than. */
export async function writingRows(rows: number, transactions: number): Promise<number> {
  const folder = mkdtempSync(join(tmpdir(), 'noskel-floor-'))
  const database = new Sequelize({ dialect: 'sqlite', storage: join(folder, 'floor.sqlite'), logging: false })
  const text = DataTypes.TEXT
  const table = database.define('rows', { id: { type: text, primaryKey: true }, a: text, b: text, c: text })
  await database.sync()
  const each = Math.ceil(rows / transactions)
  const took = await once(async () => {
    for (let part = 0; part < transactions; part += 1)
      await database.transaction(async transaction => {
        const made = Array.from({ length: each }, (_, index) => {
          const id = `${part} ${index}`
          return { id, a: 'somebody', b: `${id}@test.example`, c: 'member' }
        })
        await table.bulkCreate(made, { transaction })
      })
  })
  await database.close()
  rmSync(folder, { recursive: true, force: true })
  return took
}
