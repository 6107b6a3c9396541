import { useState } from 'react'
import type { RolesView } from '#contract/views/roles.ts'
import { counted } from '#core/words/english.ts'
import { useRolesQuery } from '../../api/roles.ts'
import { useDecision } from '../../api/use-decision.ts'
import { useHere } from '../../api/use-here.ts'
import { Decision } from '../../ui/Decision.tsx'
import { useDraft } from '../../ui/use-draft.ts'
import { NotYet } from '../../ui/NotYet.tsx'
import { countOf, editsOf, type RolesDraft, toggled } from './draft.ts'
import { RoleGrid } from './RoleGrid.tsx'
import { RolesHead } from './RolesHead.tsx'

/** All roles beside all privileges; changes make a draft, with its effect before it is applied. */
export function SideBySideScreen() {
  const { slug } = useHere()
  const { data: view, error } = useRolesQuery(slug)
  const [draft, keep, drop] = useDraft<RolesDraft>(`roles matrix ${slug}`, {})
  const [isDeciding, setDeciding] = useState(false)
  if (view === undefined) return <NotYet error={error} />
  const meant = Object.fromEntries(
    Object.entries(draft).filter(([id]) => view.roles.some(role => role.id === id && role.mayChange)),
  )
  const isEmpty = Object.keys(meant).length === 0
  const close = () => setDeciding(false)
  return (
    <div className="grid min-h-0 grid-rows-[auto_minmax(0,1fr)_auto]">
      <div className="px-4 pt-3">
        <RolesHead>
          <span className="quiet text-sm">
            {view.below === null
              ? 'Arrow keys move over the cells.'
              : 'Press Space or click to add or remove a privilege. Move with the arrow keys.'}
          </span>
        </RolesHead>
      </div>
      <RoleGrid
        view={view}
        draft={meant}
        onToggle={(role, privilege) => keep(toggled(meant, role, privilege))}
      />
      {!isEmpty && (
        <Bar
          view={view}
          draft={meant}
          isDeciding={isDeciding}
          onDecide={() => setDeciding(true)}
          onDrop={drop}
        >
          {isDeciding && (
            <Applying
              draft={meant}
              onLeave={close}
              onDone={() => {
                drop()
                close()
              }}
            />
          )}
        </Bar>
      )}
    </div>
  )
}

interface BarProps {
  readonly view: RolesView
  readonly draft: RolesDraft
  readonly isDeciding: boolean
  readonly onDecide: () => void
  readonly onDrop: () => void
  readonly children: React.ReactNode
}

function Bar({ view, draft, isDeciding, onDecide, onDrop, children }: BarProps) {
  const { added, taken } = countOf(view, draft)
  const roles = Object.keys(draft).length
  return (
    <section
      aria-label="Draft"
      className="max-h-80 overflow-y-auto border-t border-base-content bg-base-200 px-4 py-2"
    >
      <div className="flex items-center gap-4">
        <p role="status">
          <strong>{counted(roles, 'role', 'roles')}</strong> would change: {added} added, {taken} removed.
          Nothing is applied yet.
        </p>
        {!isDeciding && (
          <span className="ml-auto flex gap-2">
            <button type="button" className="btn-main" onClick={onDecide}>
              Preview …
            </button>
            <button type="button" className="btn-plain" onClick={onDrop}>
              Discard
            </button>
          </span>
        )}
      </div>
      {children}
    </section>
  )
}

interface ApplyingProps {
  readonly draft: RolesDraft
  readonly onLeave: () => void
  readonly onDone: () => void
}

function Applying({ draft, onLeave, onDone }: ApplyingProps) {
  const count = Object.keys(draft).length
  const words = counted(count, 'role', 'roles')
  const decision = useDecision(editsOf(draft), `${words} changed.`, onDone)
  return <Decision label={`Apply to ${words}`} onLeave={onLeave} {...decision} />
}
