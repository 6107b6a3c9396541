import { useState } from 'react'
import type { AccessWantedView, RequestView } from '#contract/views/requests.ts'
import { AskedWords } from '../requests/AskedWords.tsx'
import { DecideRequest } from '../requests/DecideRequest.tsx'

interface Props {
  readonly requests: readonly RequestView<AccessWantedView>[]
  /** What the reader has here. */
  readonly held: number
}

/** Who asks for access to the open place. */
export function RequestsHere({ requests, held }: Props) {
  if (requests.length === 0) return null
  return (
    <section aria-label="Requests for this place" className="mb-3 border-l-4 border-warning pl-3">
      {requests.map(request => (
        <Asked key={request.id} request={request} held={held} />
      ))}
    </section>
  )
}

function Asked({
  request,
  held,
}: {
  readonly request: RequestView<AccessWantedView>
  readonly held: number
}) {
  const [isOpen, setOpen] = useState(false)
  return (
    <div className="py-1">
      <AskedWords request={request} />
      {isOpen ? (
        <DecideRequest request={request} held={held} onDone={() => setOpen(false)} />
      ) : (
        <button type="button" className="btn-inline text-sm" onClick={() => setOpen(true)}>
          Decide …
        </button>
      )}
    </div>
  )
}
