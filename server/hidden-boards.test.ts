import { afterAll, beforeAll, expect, describe, test } from 'vitest'
import { plainView } from '#core/boards/view.ts'
import { absent, type Asker, type Askers, askersOf, textOf } from './tests/askers.ts'
import type { Answer } from './tests/client.ts'
import { at, type Coast, coast } from './tests/coast.ts'

/** What is asked of a board by more than an address: what may not be known of is answered like what is not there. */

type Request = readonly [method: string, path: string, body: unknown]

const sent = ({ visitor }: Asker, [method, path, body]: Request) => visitor.call(method, `${at}${path}`, body)

let world: Coast
let askers: Askers

beforeAll(async () => {
  world = await coast()
  askers = await askersOf(world)
}, 90_000)

afterAll(() => world.server.stop())

describe.each(['member', 'guest', 'lead', 'steward'] as const)('to a %s', who => {
  test('every request about a board that names something', async () => {
    const asker = askers[who]
    const { boards: board, rows: row } = asker.known
    const cell = (of: object) => ({ row, column: 'name', value: 'N', seen: 1, ...of })
    const column = { column: 'name', as: 'text', settings: {}, decimal: '.', isDayFirst: true }
    const table = (of: object) => ({ columns: [{ ...column, ...of }], key: null, rows: [['1']] })
    const plain = { as: 'text', settings: {} }
    const about = (id: string): Request[] => [
      ['POST', `/nodes/${id}/board/cells`, { cells: [cell({})] }],
      ['POST', `/nodes/${id}/board/order`, { rows: [row], before: null, section: null }],
      ['POST', `/nodes/${id}/board/judged-rows`, table({})],
      ['POST', `/nodes/${id}/board/imported-rows`, { ...table({}), reason: '', seen: 1 }],
      ['POST', `/nodes/${id}/board/own-views`, { view: null, name: 'V', state: plainView }],
      ['DELETE', `/nodes/${id}/board/own-views/a`, undefined],
      ['PUT', `/nodes/${id}/board/own-columns`, { columns: null }],
      ['PUT', `/nodes/${id}/board/edited-cells`, { cell: null }],
      ['POST', `/nodes/${id}/columns/nothing/conversion`, plain],
    ]
    const commentsOn = (id: string): Request[] => [
      ['POST', `/nodes/${id}/comments`, { text: 'a', thread: null }],
      ['PUT', `/nodes/${id}/comments/a`, { text: 'a' }],
      ['DELETE', `/nodes/${id}/comments/a`, undefined],
      ['PUT', `/nodes/${id}/comments/a/resolved`, { isResolved: true }],
      ['POST', `/nodes/${id}/reach`, { people: [], places: [] }],
    ]
    const requests: Readonly<Record<string, (id: string) => Request[]>> = {
      nodes: id => [...about(id), ...commentsOn(id)],
      boards: id => [...about(id), ...commentsOn(id)],
      rows: id => [
        ...commentsOn(id),
        ['POST', `/nodes/${board}/board/cells`, { cells: [cell({ row: id })] }],
        ['POST', `/nodes/${board}/board/order`, { rows: [id], before: null, section: null }],
        ['POST', `/nodes/${board}/board/order`, { rows: [row], before: id, section: null }],
        ['PUT', `/nodes/${board}/board/edited-cells`, { cell: { row: id, column: 'name' } }],
        ['POST', `/nodes/${row}/reach`, { people: [], places: [id] }],
      ],
      sections: id => [
        ['POST', `/nodes/${board}/board/order`, { rows: [row], before: null, section: id }],
        [
          'POST',
          `/nodes/${board}/board/cells`,
          { rows: [{ row: 'new:r', section: id }], cells: [cell({ row: 'new:r' })] },
        ],
      ],
      columns: id => [
        ['POST', `/nodes/${board}/board/cells`, { cells: [cell({ column: id })] }],
        ['POST', `/nodes/${board}/board/judged-rows`, table({ column: id })],
        ['POST', `/nodes/${board}/board/imported-rows`, { ...table({ column: id }), reason: '', seen: 1 }],
        ['PUT', `/nodes/${board}/board/edited-cells`, { cell: { row, column: id } }],
        ['POST', `/nodes/${board}/columns/${id}/conversion`, plain],
      ],
    }
    for (const [names, requestsOf] of Object.entries(requests)) {
      const id = asker.hidden[names]
      if (id === undefined) continue
      const nothing = requestsOf(absent)
      for (const [nth, request] of requestsOf(id).entries()) {
        const [one, two] = [await sent(asker, request), await sent(asker, nothing[nth] ?? request)]
        const told = ({ status, body }: Answer, as: string) => [request, status, textOf(body, as)]
        expect(told(two, absent)).toEqual(told(one, id))
      }
    }
  })
})
