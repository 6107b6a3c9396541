import { useState } from 'react'
import { Link } from 'react-router'
import type { NodeView } from '#contract/views/content.ts'
import { useChange } from '../../api/use-change.ts'
import { useHere } from '../../api/use-here.ts'
import { Day } from '../../ui/dates.tsx'
import { Level } from '../../ui/Gauge.tsx'
import { ProblemNote } from '../../ui/ProblemNote.tsx'
import { onSubmit } from '../../ui/on-submit.ts'
import { type Act, ChosenAct, PlaceActs } from './PlaceActs.tsx'

interface Props {
  readonly node: NodeView
  readonly mayEdit: boolean
}

/** Where one is, what it is called, and how much one may do there. */
export function NodeHeader({ node, mayEdit }: Props) {
  const { slug } = useHere()
  const [act, setAct] = useState<Act>()
  const leave = () => setAct(undefined)
  return (
    <header className="mb-4">
      <p className="quiet min-h-5 text-sm">
        <Link className="hover:underline md:hidden" to={`/at/${slug}/content`}>
          Places ›{' '}
        </Link>
        {node.path.map(above => (
          <span key={above.id}>
            <Link className="hover:underline" to={`/at/${slug}/content/${above.id}`}>
              {above.name}
            </Link>{' '}
            ›{' '}
          </span>
        ))}
      </p>
      {act === 'rename' ? (
        <Rename node={node} onDone={leave} />
      ) : (
        <div className="flex flex-wrap items-center justify-between gap-x-6 gap-y-2">
          <h1 className="min-w-0 text-2xl font-bold break-words">{node.name}</h1>
          <PlaceActs node={node} mayEdit={mayEdit} act={act} onAct={setAct} />
        </div>
      )}
      <p className="quiet mt-1 flex flex-wrap items-center gap-x-2 text-sm">
        <span>
          {node.isDraft && <strong className="text-warning">draft · </strong>}
          {node.isArchived && <strong className="text-warning">archived · </strong>}
          {webWord(node)}
          {homeWord(node)}
          {node.madeBy !== null && ` · created by ${node.madeBy}`} on <Day at={node.madeAt} /> · your access:
        </span>
        <span className="inline-flex items-center text-base-content">
          <Level actions={node.actions} />
        </span>
      </p>
      {node.note !== '' && <p className="mt-2">{node.note}</p>}
      {act !== undefined && act !== 'rename' && <ChosenAct key={act} act={act} node={node} onDone={leave} />}
    </header>
  )
}

/** On the web by itself or by what it stands in; or kept out of it. */
function webWord({ web, isPublic }: NodeView) {
  if (web === 'excluded') return 'kept off the web · '
  if (isPublic) return <strong className="text-error">on the web for everybody · </strong>
  return web === 'published' ? 'published, but a place above keeps it off the web · ' : ''
}

function homeWord({ home, kind }: NodeView): string {
  if (home === 'person') return 'your private folder, nobody else has access'
  return home === null ? kind : home === 'team' ? 'team home' : 'shared home'
}

function Rename({ node, onDone }: { readonly node: NodeView; readonly onDone: () => void }) {
  const { slug } = useHere()
  const { apply, problem, isBusy } = useChange(slug)
  const [name, setName] = useState(node.name)
  const submit = async () => {
    const edit = { kind: 'node.describe', node: node.id, name: name.trim() } as const
    const { applied } = await apply([edit], `Renamed to ${name.trim()}.`)
    if (applied !== undefined) onDone()
  }
  return (
    <form className="grid max-w-md gap-2" onSubmit={onSubmit(submit)}>
      <div className="flex gap-2">
        <input
          className="field"
          aria-label="New name"
          autoFocus
          value={name}
          onChange={event => setName(event.target.value)}
        />
        <button className="btn-main" disabled={isBusy || name.trim() === ''}>
          Rename
        </button>
        <button type="button" className="btn-plain" onClick={onDone}>
          Cancel
        </button>
      </div>
      <ProblemNote problem={problem} />
    </form>
  )
}
