import { api } from './api.ts'

/** What is asked about one place, and hangs on what lies above it. */
const ofPlaces = ['node', 'children', 'explanation', 'whyNot', 'columns'] as const

/**
 * The places that are asked about now and lie, or may lie, below one: what is known of a place tells what it lies in. Of one
 * whose way up is not all seen, nobody here can tell.
 */
export function placesBelow(above: string, state: unknown): string[] {
  const slugs = api.util.selectCachedArgsForQuery(state as never, 'tree')
  const homes = new Set(
    slugs.flatMap(slug =>
      (api.endpoints.tree.select(slug)(state as never).data?.homes ?? []).map(({ id }) => id),
    ),
  )
  const asked = ofPlaces.flatMap(endpoint =>
    api.util.selectCachedArgsForQuery(state as never, endpoint).map(({ slug, id }) => ({ slug, id })),
  )
  const found = asked.filter(({ slug, id }) => {
    const path = api.endpoints.node.select({ slug, id })(state as never).data?.path
    if (path === undefined) return true
    const isWhole = homes.has(path[0]?.id ?? id)
    return !isWhole || path.some(each => each.id === above)
  })
  return [...new Set(found.map(({ id }) => id))]
}
