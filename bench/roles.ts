import { allPrivileges, privileges } from '#core/levels/privilege.ts'
import { emptyPage, opening, openLarge, writingRows } from './large-server.ts'
import { type Floor, once, type Reading, readingsOn, timed } from './measure.ts'

/** How fast roles are read and changed where 5,000 of 20,000 people are concerned and 60 roles stand side by side. */

const size = { people: 20_000, teams: 200, nodes: 2000, grants: 3000, limits: 20, breaks: 40 }
type Large = Awaited<ReturnType<typeof openLarge>>

const reading = readingsOn('20,000 people')

const change = <T>({ call }: Large, path: string, edits: readonly object[]) =>
  call<T>('POST', `/at/large${path}`, { edits })

export async function rolesReadings(): Promise<Reading[]> {
  const large = await openLarge(size)
  const name = { what: 'the workspace’s name and what one may do', value: await timed(large.get('')) }
  const role = await makeRoles(large)
  const readings = [
    ...(await assigning(large, { role, name })),
    reading(
      'roles.change.preview',
      await timed(() =>
        change(large, '/changes/preview', [{ kind: 'role.change', role, privileges: ['edit settings'] }]),
      ),
      name,
    ),
    reading('roles.list', await timed(large.get('/roles')), name),
    reading('roles.holders', await timed(large.get(`/roles/${role}/holders`)), name),
    reading('roles.seats', await timed(large.get('/seats')), name),
    ...(await pages(large)),
  ]
  await large.stop()
  return readings
}

async function makeRoles(large: Large): Promise<string> {
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
  const { made } = await change<{ made: Record<string, string> }>(large, '/changes', making)
  return made['new:r0'] ?? ''
}

interface Assigning {
  readonly role: string
  readonly name: Floor
}

async function assigning(large: Large, { role, name }: Assigning): Promise<Reading[]> {
  const names = await large.call<readonly { id: string; kind: string }[]>('GET', '/at/large/people/names')
  const edits = names
    .filter(each => each.kind === 'member')
    .slice(0, 5000)
    .map(({ id }) => ({
      kind: 'role.assign',
      person: id,
      role,
      scope: { over: 'workspace' },
      from: null,
      until: null,
    }))
  let preview = ''
  const looked = await timed(async () => {
    preview = (await change<{ digest: string }>(large, '/changes/preview', edits)).digest
  }, 3)
  const done = await once(() => large.call('POST', '/at/large/changes', { edits, preview }))
  const rows = { what: '10,000 plain rows in 1 transaction', value: await writingRows(10_000, 1) }
  return [reading('roles.assign.preview', looked, name), reading('roles.assign', done, rows)]
}

const twoFrames = `const done = arguments[0]
  requestAnimationFrame(() => requestAnimationFrame(done))`
const turning = `const done = arguments[0]
  document.querySelector('[data-cell="0-6"]').click()
  requestAnimationFrame(() => requestAnimationFrame(done))`

async function pages({ arrive }: Large): Promise<Reading[]> {
  const visitor = await arrive()
  const page = await emptyPage(visitor)
  const opened = await timed(opening(visitor, '/at/large/roles/matrix', 'Role 54'), 5)
  const turned = await timed(() => visitor.driver.executeAsyncScript(turning), 5)
  const frames = {
    what: 'two frames with nothing to draw',
    value: await timed(() => visitor.driver.executeAsyncScript(twoFrames), 5),
  }
  await visitor.close()
  return [reading('roles.matrix', opened, page), reading('roles.matrix.cell', turned, frames)]
}
