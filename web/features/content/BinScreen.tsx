import { useState } from 'react'
import type { PathView } from '#contract/views.ts'
import { useBinQuery } from '../../api/api.ts'
import { useDecision } from '../../api/use-decision.ts'
import { useHere } from '../../api/use-here.ts'
import { Decision } from '../../ui/Decision.tsx'

/** What lies in the bin and one could bring back. */
export function BinScreen() {
  const { slug } = useHere()
  const { data: binned = [] } = useBinQuery(slug)
  return (
    <main className="min-h-0 overflow-y-auto px-6 py-3">
      <h1 className="mb-1 text-2xl font-bold">Bin</h1>
      {binned.length === 0 && <p className="py-4">Nothing is in the bin that you could bring back.</p>}
      <ul className="max-w-xl">
        {binned.map(place => (
          <Binned key={place.id} place={place} />
        ))}
      </ul>
    </main>
  )
}

function Binned({ place }: { readonly place: PathView }) {
  const [isOpen, setOpen] = useState(false)
  return (
    <li className="border-t border-base-300 py-2">
      <div className="flex items-baseline justify-between gap-3">
        <span>
          <strong>{place.name}</strong>
          {place.path !== '' && <span className="quiet"> from {place.path}</span>}
        </span>
        <button
          type="button"
          className="act text-sm"
          aria-label={`Bring back: ${place.name}`}
          onClick={() => setOpen(true)}
        >
          Bring back
        </button>
      </div>
      {isOpen && <BringingBack place={place} onDone={() => setOpen(false)} />}
    </li>
  )
}

function BringingBack({ place, onDone }: { readonly place: PathView; readonly onDone: () => void }) {
  const edit = { kind: 'node.state', node: place.id, binned: false } as const
  const decision = useDecision([edit], `${place.name} is back.`, onDone)
  return <Decision act="Bring it back" onLeave={onDone} {...decision} />
}
