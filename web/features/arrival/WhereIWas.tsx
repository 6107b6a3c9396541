import { Link } from 'react-router'
import { useNodeQuery } from '../../api/api.ts'
import { useHere } from '../../api/use-here.ts'
import { useAppSelector } from '../../store/store.ts'
import { Level } from '../../ui/Gauge.tsx'
import { KindIcon } from '../../ui/KindIcon.tsx'

const shownAtMost = 8
const none: readonly string[] = []

/** The places that one opened last in this browser, as far as one may still open them. */
export function WhereIWas() {
  const { workspace } = useHere()
  const visited = useAppSelector(state => state.view.visited[workspace.me.id] ?? none)
  if (visited.length === 0) return null
  return (
    <section aria-label="Where you were">
      <h2 className="mb-1 text-lg font-bold">Where you were</h2>
      <ul>
        {visited.slice(0, shownAtMost).map(id => (
          <Visited key={id} id={id} />
        ))}
      </ul>
    </section>
  )
}

function Visited({ id }: { readonly id: string }) {
  const { slug } = useHere()
  const { data: node } = useNodeQuery({ slug, id })
  if (node === undefined) return null
  const path = node.path.map(above => above.name).join(' › ')
  return (
    <li className="flex items-center justify-between gap-4 border-t border-base-300 py-1">
      <Link className="flex min-w-0 items-center gap-2 hover:underline" to={`/at/${slug}/content/${id}`}>
        <KindIcon kind={node.kind} />
        <span className="truncate">
          {node.name}
          {path !== '' && <span className="quiet text-sm"> in {path}</span>}
        </span>
      </Link>
      <span className="shrink-0 text-sm">
        <Level actions={node.actions} />
      </span>
    </li>
  )
}
