import { useState } from 'react'
import type { EditRequest } from '#contract/edit-requests.ts'
import type { SettingsView } from '#contract/views/workspace.ts'
import { useDecision } from '../../api/use-decision.ts'
import { Day } from '../../ui/dates.tsx'
import { Decision } from '../../ui/Decision.tsx'

/** Ends all access from outside at once, everywhere; and lets it be as it was before just as fast. */
export function Closing({ settings: { closing } }: { readonly settings: SettingsView }) {
  const [isOpen, setOpen] = useState(false)
  if (closing === null) return null
  const { whole, closed } = closing
  const edit: EditRequest =
    closed === null
      ? {
          kind: 'limit.add',
          node: whole,
          principal: 'guests',
          allows: 0,
          sparesStewards: true,
          from: null,
          until: null,
        }
      : { kind: 'limit.end', limit: closed.limit }
  return (
    <section aria-label="Close to guests and the web" className="border-t border-base-content py-4">
      <div className="flex items-start justify-between gap-6">
        <div className="min-w-0">
          <h3 className="font-bold">Close everything to guests and the web</h3>
          <p className="quiet mb-1 text-sm">
            Guests and the web lose access to everything. Their grants stay, and count again when you open it.
          </p>
          {closed === null ? (
            <div>Open: guests and the web have the access that is given to them.</div>
          ) : (
            <div className="font-semibold text-error">
              Closed by {closed.by}, <Day at={closed.at} />
            </div>
          )}
        </div>
        {!isOpen && (
          <button type="button" className="btn-plain shrink-0" onClick={() => setOpen(true)}>
            {closed === null ? 'Close …' : 'Open again …'}
          </button>
        )}
      </div>
      {isOpen && <Deciding edit={edit} isClosing={closed === null} onDone={() => setOpen(false)} />}
    </section>
  )
}

interface Props {
  readonly edit: EditRequest
  readonly isClosing: boolean
  readonly onDone: () => void
}

function Deciding({ edit, isClosing, onDone }: Props) {
  const confirmation = isClosing
    ? 'Everything is closed to guests and the web.'
    : 'Guests and the web have their access again.'
  const decision = useDecision([edit], confirmation, onDone)
  return (
    <Decision
      label={isClosing ? 'Close everything' : 'Open again'}
      isDrastic={isClosing}
      onLeave={onDone}
      {...decision}
    />
  )
}
