import { allPrivileges, privileges } from '#core/levels/privilege.ts'
import { opening, openLarge, writingRows } from './large-server.ts'
import { type Figure, once, tableOf, timed } from './measure.ts'

/**
 * How fast roles are read and changed where 5,000 of 20,000 people are concerned and 60 roles stand side by side:
 * node --import tsx bench/roles.ts
 */
const size = { people: 20_000, teams: 200, nodes: 2000, grants: 3000, limits: 20, breaks: 40 }
const { call, get, arrive, stop } = await openLarge(size)
const change = <T>(path: string, edits: readonly object[]) => call<T>('POST', `/at/large${path}`, { edits })

const reading = { what: 'the workspace’s name and what one may do', milliseconds: await timed(get('')) }
const figures: Figure[] = []

const making = Array.from({ length: 55 }, (_, index) => ({
  kind: 'role.create',
  role: `new:r${index}`,
  name: `Role ${index}`,
  note: 'One of many',
  rank: 21 + (index % 38),
  privileges: [
    ...privileges(...allPrivileges.filter((each, at) => each !== 'own' && (at + index) % 7 === 0)),
  ],
  addressable: false,
  seatExempt: false,
}))
const { made } = await change<{ made: Record<string, string> }>('/changes', making)
const role = made['new:r0'] ?? ''

const people = (await call<readonly { id: string; kind: string }[]>('GET', '/at/large/people/names'))
  .filter(each => each.kind === 'member')
  .slice(0, 5000)
const giving = people.map(({ id }) => ({
  kind: 'role.assign',
  person: id,
  role,
  scope: { over: 'workspace' },
  from: null,
  until: null,
}))
let digest = ''
figures.push({
  what: 'a role for 5,000 people, its effect on each',
  milliseconds: await timed(async () => {
    digest = (await change<{ digest: string }>('/changes/preview', giving)).digest
  }, 3),
  floor: reading,
})
figures.push({
  what: 'the same, done: judged, compared with what was seen, written',
  milliseconds: await once(() => call('POST', '/at/large/changes', { edits: giving, preview: digest })),
  floor: { what: '10,000 plain rows in 1 transaction', milliseconds: await writingRows(10_000, 1) },
})
figures.push({
  what: 'a privilege more for a role that 5,000 hold, its effect',
  milliseconds: await timed(() =>
    change('/changes/preview', [{ kind: 'role.change', role, privileges: ['edit settings'] }]),
  ),
  floor: reading,
})
figures.push({
  what: '60 roles with who holds what',
  milliseconds: await timed(get('/roles')),
  floor: reading,
})
figures.push({
  what: 'the 5,000 holders of one',
  milliseconds: await timed(get(`/roles/${role}/holders`)),
  floor: reading,
})
figures.push({
  what: 'the seats and how that came',
  milliseconds: await timed(get('/seats')),
  floor: reading,
})

const visitor = await arrive()
const page = {
  what: 'opening a page that lists nothing',
  milliseconds: await timed(opening(visitor, '/account', 'Two-step sign-in'), 5),
}
figures.push({
  what: 'opening 60 roles side by side in Chromium',
  milliseconds: await timed(opening(visitor, '/at/large/roles/matrix', 'Role 54'), 5),
  floor: page,
})
const cell = `document.querySelector('[data-cell="0-6"]')`
figures.push({
  what: 'a cell turned there, drawn',
  milliseconds: await timed(
    () =>
      visitor.driver.executeAsyncScript(
        `const done = arguments[0]; ${cell}.click(); requestAnimationFrame(() => requestAnimationFrame(done))`,
      ),
    5,
  ),
  floor: {
    what: 'two frames with nothing to draw',
    milliseconds: await timed(
      () =>
        visitor.driver.executeAsyncScript(
          'const done = arguments[0]; requestAnimationFrame(() => requestAnimationFrame(done))',
        ),
      5,
    ),
  },
})
await visitor.close()
await stop()
process.stdout.write(`${tableOf(figures)}\n`)
