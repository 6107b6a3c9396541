import { somePerson } from '#core/access/principals.ts'
import { createEvaluationBeside, type EvaluationContext } from '#core/access/evaluation-context.ts'
import { none } from '#core/base/vector.ts'
import type { NodeId } from '#core/base/ids.ts'
import { numberOf } from '#core/base/numbering.ts'
import { type AccessDiff, accessDiffOf } from '#core/access/access-diff.ts'
import { advanced } from '#core/index/advance.ts'
import { principalNumber } from '#core/index/entries.ts'
import { levelActions } from '#core/levels/level.ts'
import type { Grant } from '#core/rules/access-entry.ts'
import type { Principal } from '#core/rules/principal.ts'
import { createRandom } from '#demo/random.ts'
import { largestHome, nodeId, type Size } from '#demo/large.ts'
import { middleOf } from './measure.ts'

/** What it takes to say what a grant that nobody has made yet would do, by counts: milliseconds by what it is. */
export function impactsAt(evaluation: EvaluationContext, size: Size) {
  const random = createRandom(13)
  const nowhere = () => nodeId(1 + random.whole(size.nodes - 1))
  const person = (): Principal => `person:p${random.whole(size.people)}`
  const team = (): Principal => `team:t${random.whole(size.teams)}`
  const home = largestHome(size)
  return {
    'impact.person': middleOf(2000, countingFor(evaluation, nowhere, person)),
    'impact.team': middleOf(2000, countingFor(evaluation, nowhere, team)),
    'impact.team-tenth': middleOf(
      15,
      countingFor(evaluation, () => home, team),
    ),
    'impact.everybody-tenth': middleOf(
      15,
      countingFor(
        evaluation,
        () => home,
        () => 'everyone',
      ),
    ),
  }
}

function countingFor(
  before: EvaluationContext,
  where: () => NodeId,
  whom: () => Principal,
): () => AccessDiff {
  return () => {
    const { index, time } = before
    const grant: Grant = {
      id: 'grant' as Grant['id'],
      node: where(),
      principal: whom(),
      gives: levelActions('Editor'),
      by: 'p0' as Grant['by'],
      at: time,
      copiedFrom: null,
      from: null,
      until: null,
    }
    const after = createEvaluationBeside(
      before,
      advanced(index, [{ table: 'grants', before: null, after: grant }]),
    )
    const people: number[] = []
    somePerson(before, principalNumber(index, grant.principal), person => {
      people.push(person)
      return false
    })
    const node = numberOf(index.nodes, grant.node) as number
    return accessDiffOf({
      sides: [before, after],
      starts: [[node, node]],
      people: Int32Array.from(people),
      isWeb: false,
      asker: none,
      mostRows: 0,
    })
  }
}
