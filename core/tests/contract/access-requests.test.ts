import { describe, expect, test } from 'vitest'
import { allRows, rowOf } from '../../base/collection.ts'
import type { RequestId } from '../../base/ids.ts'
import { judge } from '../../changes/judge.ts'
import { nextDue, waitingIn } from '../../changes/scheduled.ts'
import { decidersOnAccess } from '../../changes/requests/for-access.ts'
import { actions } from '../../levels/action.ts'
import { levelActions } from '../../levels/level.ts'
import {
  type AccessRequest,
  accessRequestTime,
  goesOnAfter,
  remindAfter,
  wantedId,
} from '../../people/request.ts'
import { snapshotOf } from '../../state/snapshot.ts'
import { applyChanges, type State } from '../../state/state.ts'
import { after, edit, giving, levelOf, reader, refusal, steward } from '../judging.ts'
import { broken, grant, member, node, now, person, team, world } from '../world.ts'

/** Access that is asked for by an address, and changes of access that one wants to be told of. */
const state = world(
  person('top'),
  person('near'),
  person('lead'),
  person('p'),
  person('q'),
  team('t'),
  member('t', 'lead'),
  node('home', 'root'),
  node('a', 'home'),
  node('b', 'a'),
  node('shut', 'home', broken),
  grant('home', 'person:top', steward),
  grant('a', 'person:near', steward),
  grant('a', 'team:t', steward),
  grant('a', 'person:q', reader),
)
const asking = (where: string, request = 'r', wanted = reader) =>
  edit('request.make', { request, wants: { of: 'access', node: where, actions: wanted }, reason: 'Please' })
const answering = (gives: object | null, request = 'r') =>
  gives === null
    ? edit('request.decline', { request, comment: 'No' })
    : edit('request.accept', { request, comment: '', gives: { of: 'access', grant: 'new', ...gives } })
const asReader = { gives: reader, until: null }
const requested = after(state, 'p', asking('b'))
const requestsIn = (of: State) => allRows(of.requests).map(({ id, wants }) => [id, wantedId(wants)])

describe('access that is asked for', () => {
  test('is kept alike for what is hidden, what is nobody’s, and what is not there', () => {
    for (const where of ['b', 'shut', 'nothing', 'root'])
      expect(requestsIn(after(state, 'p', asking(where)))).toEqual([['r', where]])
  })

  test('is asked for once, and not where one has it', () => {
    expect(refusal(requested, 'p', asking('b', 'r2'))).toMatchObject({ what: 'access request' })
    expect(refusal(state, 'q', asking('b'))).toMatchObject({ what: 'access' })
    expect(refusal(state, 'q', asking('b', 'r', levelActions('Editor')))).toBe('allowed')
    const many = after(state, 'p', ...Array.from({ length: 100 }, (_, i) => asking(`x${i}`, `r${i}`)))
    expect(refusal(many, 'p', asking('b'))).toEqual({ code: 'asked-too-much' })
  })

  test('reaches first those who give access nearest to the place, then all others who do', () => {
    const request = rowOf(requested.requests, 'r' as RequestId) as AccessRequest
    const rings = decidersOnAccess(snapshotOf(requested, now), request)
    expect(rings.map(each => each.sort())).toEqual([['lead', 'near'], ['top']])
    const nowhere = { ...request, wants: { ...request.wants, node: 'nothing' as never } }
    expect(decidersOnAccess(snapshotOf(requested, now), nowhere)).toEqual([[], []])
  })

  test('reminds, goes on, and is over, each at its time', () => {
    const steps = (since: number, until: number) =>
      waitingIn(requested, now + since, now + until).map(each => each.step)
    expect(steps(0, remindAfter - 1)).toEqual([])
    expect(steps(0, remindAfter)).toEqual(['remind'])
    expect(steps(remindAfter, goesOnAfter)).toEqual(['go on'])
    expect(nextDue(requested, now)).toBe(now + remindAfter)
    expect(nextDue(requested, now + remindAfter)).toBe(now + goesOnAfter)
    expect(waitingIn(after(requested, 'near', answering(null)), now, now + goesOnAfter)).toEqual([])
    const late = snapshotOf(requested, now + accessRequestTime)
    expect(refusalAt(late, 'near', answering(asReader))).toMatchObject({ what: 'request' })
  })

  test('is answered by whoever gives access there, with what is theirs to give', () => {
    for (const who of ['q', 'p'])
      for (const gives of [asReader, null])
        expect(refusal(requested, who, answering(gives))).toEqual({ code: 'unknown', what: 'request' })
    const given = after(requested, 'top', answering({ gives: levelActions('Editor'), until: now + 9 }))
    expect([levelOf(given, 'p', 'b'), levelOf(given, 'p', 'a'), requestsIn(given)]).toEqual([
      'Editor',
      'No access',
      [],
    ])
    const small = after(
      requested,
      'top',
      edit('grant.change', { grant: 'a person:near', gives: levelActions('Curator') }),
    )
    const sharing = after(small, 'top', giving('b', 'person:near', actions('share', 'copy')))
    expect(refusal(sharing, 'near', answering({ gives: steward, until: null }))).toMatchObject({
      code: 'gives-more',
    })
  })

  test('is not answered by who asked, who may give access there in part', () => {
    const sharing = world(
      node('home', 'root'),
      grant('home', 'person:s', actions('share')),
      person('s'),
      person('top'),
      grant('home', 'person:top', steward),
    )
    const own = after(sharing, 's', asking('home', 'r', levelActions('Editor')))
    expect(refusal(own, 's', answering(null))).toEqual({ code: 'unknown', what: 'request' })
    expect(refusal(own, 'top', answering(null))).toBe('allowed')
  })

  test('stays with its answer when it is declined, and is asked for anew', () => {
    const declined = after(requested, 'near', answering(null))
    expect(rowOf(declined.requests, 'r' as RequestId)?.declined).toMatchObject({
      by: 'near',
      comment: 'No',
    })
    expect(refusal(declined, 'near', answering(asReader))).toMatchObject({ what: 'request' })
    // That it was declined would tell that there is such a place.
    expect(refusal(declined, 'p', asking('b', 'r2'))).toMatchObject({ what: 'access request' })
    const seen = applyChanges(declined, [
      {
        table: 'grants',
        id: 'g' as never,
        before: null,
        after: grant('b', 'person:p', actions('see')).row as never,
      },
    ])
    const again = after(seen, 'p', asking('b', 'r2'))
    expect(requestsIn(again)).toEqual([['r2', 'b']])
    expect(requestsIn(after(again, 'p', edit('request.withdraw', { request: 'r2' })))).toEqual([])
    expect(refusal(again, 'q', edit('request.withdraw', { request: 'r2' }))).toMatchObject({
      code: 'unknown',
    })
  })

  test('is answered too by being given something there by name, and goes with who asked', () => {
    expect(requestsIn(after(requested, 'top', giving('b', 'person:p', reader)))).toEqual([])
    expect(requestsIn(after(requested, 'top', giving('a', 'person:p', reader)))).toEqual([['r', 'b']])
    expect(requestsIn(after(requested, 'owner', edit('person.remove', { person: 'p' })))).toEqual([])
  })
})

const refusalAt = (
  snapshot: ReturnType<typeof snapshotOf>,
  author: string,
  ...edits: ReturnType<typeof edit>[]
) => {
  const result = judge(snapshot, { author: author as never, reason: '', edits })
  return result.ok ? 'allowed' : result.error.refusal
}

describe('a watch', () => {
  const watching = (watch: string, where = 'a') => edit('watch.begin', { watch, node: where })

  test('is for whoever gives access there, once, and ended by oneself alone', () => {
    expect(refusal(state, 'q', watching('w'))).toMatchObject({ action: 'share' })
    expect(refusal(state, 'p', watching('w'))).toEqual({ code: 'unknown', what: 'place' })
    const watched = after(state, 'near', watching('w'))
    expect(refusal(watched, 'near', watching('w2'))).toMatchObject({ what: 'watch' })
    expect(refusal(watched, 'top', edit('watch.end', { watch: 'w' }))).toMatchObject({ code: 'unknown' })
    expect(allRows(after(watched, 'near', edit('watch.end', { watch: 'w' })).watches)).toEqual([])
    expect(allRows(after(watched, 'owner', edit('person.remove', { person: 'near' })).watches)).toEqual([])
  })
})
