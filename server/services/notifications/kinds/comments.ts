import { rowOf } from '#core/base/collection.ts'
import type { NodeId, PersonId } from '#core/base/ids.ts'
import { maySee } from '../../viewer/asker.ts'
import type { NotificationKind } from '../kind.ts'
import { whoDid } from '../words.ts'

/** What is told of a comment: it is written with it, and the history does not know it. */
interface Commented {
  readonly node: NodeId
  readonly by: PersonId
  readonly comment: string
}

const commentKind = (
  kind: string,
  { when, did }: { readonly when: string; readonly did: string },
): NotificationKind<Commented> => ({
  kind,
  when,
  find: () => [],
  tell: (reader, { node, by }) => {
    const name = maySee(reader, node) ? rowOf(reader.snapshot.state.nodes, node)?.name : undefined
    return name === undefined
      ? undefined
      : { text: `${whoDid(reader, by)} ${did} on ${name}.`, place: { id: node, name }, revision: null }
  },
})

export const mentioned = commentKind('mentioned', {
  when: 'somebody mentions me in a comment',
  did: 'mentioned you in a comment',
})

export const replied = commentKind('replied', {
  when: 'somebody replies in a thread that I wrote in',
  did: 'replied to your comment',
})
