import type { ContentKind } from './kind.ts'

/** What people say about a place. A copy of it begins without. */
export const comments: ContentKind = {
  noneIn: ({ workspace, nodes }, orElse) => ({
    table: 'comments',
    where: { workspace, node: [...nodes] },
    atMost: 0,
    orElse,
  }),
  deletion: ({ workspace, nodes }) => [
    { kind: 'delete', table: 'comments', where: { workspace, node: [...nodes] } },
  ],
  copy: () => Promise.resolve(),
}
