import { setImmediate } from 'node:timers/promises'
import type { EditRequest } from '#contract/edit-requests.ts'
import type { RemedyView, WhyNotView } from '#contract/views/explanation.ts'
import { rowOf } from '#core/base/collection.ts'
import type { PersonId } from '#core/base/ids.ts'
import { peopleOf } from '#core/access/subject.ts'
import { check } from '#core/access/evaluate.ts'
import { compareWords } from '#core/base/compare-words.ts'
import type { Edit } from '#core/changes/edit.ts'
import { judge, lacksRights } from '#core/changes/judge.ts'
import { type Action, has } from '#core/levels/action.ts'
import { type Remedy, searchRemedies, type WhyNot } from '#core/remedies/why-not.ts'
import { rootOf } from '#core/state/state.ts'
import { remedyInWords } from '#core/words/remedy.ts'
import { type Asker, asks, knowsPerson, mayName, nameOf, namingFor } from '../viewer/asker.ts'
import { problemOf } from '../../problem-error.ts'
import { eventNaming } from '../oversight/audit-event.ts'
import { askedPlace } from '../viewer/questions.ts'

/** How long the search may take, and how many of what it found are told. */
const longest = 200
const toldAtMost = 8

/**
 * The smallest remedies for somebody who may not do something, to whoever shares at the place. What they
 * would touch that the asker cannot know of is not told of.
 */
export async function whyNotView(
  asker: Asker,
  { id, person, action }: { id: string; person: string; action: Action },
  clock: () => number,
): Promise<WhyNotView> {
  const { place, actions } = askedPlace(asker, id)
  const { state } = asker.snapshot
  const about = rowOf(state.persons, person as PersonId)
  const mayAsk = has(actions, 'share') || asks(asker, 'check access')
  if (!mayAsk || about === undefined || about.status === 'removed') throw problemOf('not-found')
  const until = clock() + longest
  const query = { person: about.id, node: place.node.id, action }
  const { remedies, isComplete } = await inTurns(searchRemedies(asker.snapshot, query), () => clock() > until)
  return {
    revision: state.revision,
    may: has(check(asker.snapshot, about.id, place.node.id), action),
    isComplete,
    remedies: remedies
      .filter(remedy => remedy.edits.every(edit => isKnown(asker, edit)))
      .slice(0, toldAtMost)
      .map(remedy => remedyView(asker, remedy)),
  }
}

/** At most so many milliseconds at a time: others wait. */
const turn = 3

/** Goes on with a search between what others ask. */
async function inTurns(search: ReturnType<typeof searchRemedies>, isOver: () => boolean): Promise<WhyNot> {
  let began = performance.now()
  for (let step = search.next(false); ; step = search.next(isOver())) {
    if (step.done === true) return step.value
    if (performance.now() - began < turn) continue
    await setImmediate()
    began = performance.now()
  }
}

function isKnown(asker: Asker, edit: Edit): boolean {
  const { state } = asker.snapshot
  const seen = (node: Parameters<typeof mayName>[1]) => node === rootOf(state).id || mayName(asker, node)
  switch (edit.kind) {
    case 'limit.change': {
      const limit = rowOf(state.limits, edit.limit)
      return limit !== undefined && seen(limit.node)
    }
    case 'member.add':
    case 'member.change':
    case 'team.archive':
      return namingFor(asker).team(edit.team) !== undefined
    case 'grant.add':
    case 'node.restore':
    case 'node.state':
      return seen(edit.node)
    default:
      return true
  }
}

function remedyView(asker: Asker, { edits, beyond }: Remedy): RemedyView {
  const { snapshot } = asker
  const naming = eventNaming(asker)
  const mayI = judge(snapshot, { author: asker.person, reason: '', edits }).ok
  const others = [...peopleOf(snapshot)].filter(
    ({ id }) =>
      id !== asker.person &&
      knowsPerson(asker, id) &&
      lacksRights(snapshot, { author: id, reason: '', edits }) === undefined,
  )
  return {
    edits: edits.map(requestOf),
    words: edits.map(edit => remedyInWords(edit, naming, limit => rowOf(snapshot.state.limits, limit))),
    beyond,
    mayI,
    others: others
      .map(({ id }) => ({ id, name: nameOf(snapshot, id) }))
      .sort((a, b) => compareWords(a.name, b.name)),
  }
}

/** As it would be sent: without the ids that the server makes. */
const requestOf = (edit: Edit): EditRequest =>
  Object.fromEntries(
    Object.entries(edit).filter(([field]) => field !== 'grant' && field !== 'membership'),
  ) as EditRequest
