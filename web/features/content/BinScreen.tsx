import { useState } from 'react'
import type { BinnedView } from '#contract/views/content.ts'
import { useBinQuery } from '../../api/api.ts'
import { useDecision } from '../../api/use-decision.ts'
import { useHere } from '../../api/use-here.ts'
import { Day, Through } from '../../ui/dates.tsx'
import { Decision } from '../../ui/Decision.tsx'
import { DeleteForGood } from './DeleteForGood.tsx'

/** What lies in the bin and one could restore. */
export function BinScreen() {
  const { slug } = useHere()
  const { data: binned = [] } = useBinQuery(slug)
  return (
    <main className="min-h-0 overflow-y-auto px-6 py-3">
      <h1 className="mb-1 text-2xl font-bold">Bin</h1>
      <p className="quiet mb-3 text-sm">Places are deleted for good 30 days after they were moved here.</p>
      {binned.length === 0 && (
        <p className="py-4">The bin is empty, or there is nothing in it that you can restore.</p>
      )}
      <ul className="max-w-2xl">
        {binned.map(place => (
          <Binned key={place.id} place={place} />
        ))}
      </ul>
    </main>
  )
}

type Act = 'back' | 'delete'

function Binned({ place }: { readonly place: BinnedView }) {
  const { workspace } = useHere()
  const [act, setAct] = useState<Act>()
  const close = () => setAct(undefined)
  return (
    <li className="border-t border-base-300 py-2">
      <div className="flex items-baseline justify-between gap-3">
        <span>
          <strong>{place.name}</strong>
          {place.path !== '' && <span className="quiet"> from {place.path}</span>}
        </span>
        <span className="flex shrink-0 gap-4 text-sm">
          <button
            type="button"
            className="btn-inline"
            aria-label={`Restore ${place.name}`}
            onClick={() => setAct('back')}
          >
            Restore …
          </button>
          {place.mayDelete && (
            <button
              type="button"
              className="btn-inline text-error"
              aria-label={`Delete ${place.name} for good`}
              onClick={() => setAct('delete')}
            >
              Delete …
            </button>
          )}
        </span>
      </div>
      <p className="quiet text-sm">
        Moved here by {place.by} on <Day at={place.at} />, kept{' '}
        <Through until={place.until} timeZone={workspace.timeZone} />
      </p>
      {act === 'back' && <BringingBack place={place} onDone={close} />}
      {act === 'delete' && <DeleteForGood place={place} onDone={close} onLeave={close} />}
    </li>
  )
}

interface ActProps {
  readonly place: BinnedView
  readonly onDone: () => void
}

function BringingBack({ place, onDone }: ActProps) {
  const edit = { kind: 'node.state', node: place.id, binned: false } as const
  const decision = useDecision([edit], `${place.name} is restored.`, onDone)
  return <Decision label="Restore" onLeave={onDone} {...decision} />
}
