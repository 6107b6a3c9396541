import { useState } from 'react'
import type { GrantView, NodeView } from '#contract/views.ts'
import type { ActionSet } from '#core/levels/action.ts'
import { nameOfActions } from '#core/levels/level.ts'
import { useHere } from '../../api/use-here.ts'
import { Through } from '../../ui/dates.tsx'
import { Level } from '../../ui/Gauge.tsx'
import { countWords } from './count-words.ts'
import { GrantEditor } from './GrantEditor.tsx'
import type { WhyAbout } from './Why.tsx'

interface Props {
  readonly grants: readonly GrantView[]
  readonly node: NodeView
  readonly onWhy: (about: WhyAbout) => void
}

/** What is given at a place: what is set here first, then what comes from above. */
export function GivenHere({ grants, node, onWhy }: Props) {
  const [edited, setEdited] = useState<string>()
  return (
    <ul aria-label="What is given">
      {grants.map(grant => (
        <li key={grant.id} className="border-t border-base-300 py-1.5">
          <Row
            grant={grant}
            onWhy={onWhy}
            onEdit={() => setEdited(edited === grant.id ? undefined : grant.id)}
            isEdited={edited === grant.id}
          />
          {edited === grant.id && (
            <GrantEditor grant={grant} node={node} onDone={() => setEdited(undefined)} />
          )}
        </li>
      ))}
      {grants.length === 0 && (
        <li className="quiet py-2">Nothing is given here, and nothing comes from above.</li>
      )}
    </ul>
  )
}

interface RowProps {
  readonly grant: GrantView
  readonly onWhy: (about: WhyAbout) => void
  readonly onEdit: () => void
  readonly isEdited: boolean
}

function Row({ grant, onWhy, onEdit, isEdited }: RowProps) {
  const { workspace } = useHere()
  const person = grant.principal.startsWith('person:') ? grant.principal.slice('person:'.length) : undefined
  const level = nameOfActions(grant.actions as ActionSet).name
  return (
    <div className="grid grid-cols-[minmax(0,1fr)_7.5rem_auto] items-start gap-2">
      <span className="min-w-0">
        <span className="block truncate font-semibold" title={grant.name}>
          {grant.name}
        </span>
        <span className="quiet block text-sm">
          {grant.isHere ? countWords(grant.kind, grant.people) : `from ${grant.at?.name ?? 'a place above'}`}
          {grant.status === 'invited' && ' · invited'}
          {grant.isWaiting && ' · not begun'}
          {grant.until !== null && (
            <>
              {' · '}
              <Through until={grant.until} timeZone={workspace.timeZone} />
            </>
          )}
        </span>
      </span>
      {grant.isHere ? (
        <button
          type="button"
          className="cursor-pointer text-left decoration-1 underline-offset-2 hover:underline"
          aria-expanded={isEdited}
          aria-label={`Change ${level} of ${grant.name}`}
          onClick={onEdit}
        >
          <Level actions={grant.actions} />
        </button>
      ) : (
        <Level actions={grant.actions} />
      )}
      <button
        type="button"
        className="act text-sm"
        aria-label={`Why does ${grant.name} have this?`}
        onClick={() =>
          onWhy(person === undefined ? { principal: grant.principal, name: grant.name } : { person })
        }
      >
        Why?
      </button>
    </div>
  )
}
