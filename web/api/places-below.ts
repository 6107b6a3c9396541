import { type Question, topicsOf } from '#contract/topics.ts'
import { api } from './api.ts'

/** What is asked about one place, and hangs on what lies above it. */
const ofPlaces = (Object.keys(topicsOf) as Question[]).filter(each => topicsOf[each].includes('node:{id}'))

/** Questions of features are known here by name alone: what they are asked with is read as far as it names a place. */
interface Asked {
  readonly slug: string
  readonly id: string
}

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
  const queries = ofPlaces.flatMap(
    each => api.util.selectCachedArgsForQuery(state as never, each as 'explanation') as readonly Asked[],
  )
  const found = queries.filter(({ slug, id }) => {
    const path = api.endpoints.node.select({ slug, id })(state as never).data?.path
    if (path === undefined) return true
    const isWhole = homes.has(path[0]?.id ?? id)
    return !isWhole || path.some(each => each.id === above)
  })
  return [...new Set(found.map(({ id }) => id))]
}
