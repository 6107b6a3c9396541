import type { NodeId, PersonId } from '#core/base/ids.ts'
import type { Instant } from '#core/base/instant.ts'
import { daysAgo, idOf, personId } from './ids.ts'
import { rowId } from './plan-boards.ts'
import { type DemoThread, threads } from './scenario/comments.ts'

export interface CommentMade {
  readonly id: string
  readonly node: NodeId
  readonly thread: string
  readonly by: PersonId
  readonly at: Instant
  readonly text: string
  readonly mentions: readonly PersonId[]
  /** When its thread was resolved. */
  readonly resolvedAt: Instant | null
}

export const demoComments = (now: Instant): CommentMade[] =>
  threads.flatMap((thread, nth) => commentsOf(thread, String(nth).padStart(3, '0'), now))

/** Comments stand in the order of their ids: these come before whatever is said later. */
const commentsOf = ({ board, row, isResolved, comments }: DemoThread, nth: string, now: Instant) =>
  comments.map(({ by, text, mentions = [], day }, index): CommentMade => ({
    id: idOf('0', nth, String(index)),
    node: rowId(board, row) as NodeId,
    thread: idOf('0', nth, '0'),
    by: personId(by) as PersonId,
    at: daysAgo(now, day) - index * 1_260_000,
    text,
    mentions: mentions.map(each => personId(each) as PersonId),
    resolvedAt: isResolved && index === 0 ? daysAgo(now, comments.at(-1)?.day ?? day) : null,
  }))
