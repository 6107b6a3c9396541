import { type FocusEvent, type KeyboardEvent, memo, type MouseEvent, useRef, useState } from 'react'
import { Lock } from 'lucide-react'
import type { RoleDetailView, RolesView } from '#contract/views/roles.ts'
import { type Privilege, type PrivilegeGroup, privilegeGroups } from '#core/levels/privilege.ts'
import { privilegeRisks, privilegeWords } from '#core/words/privilege.ts'
import { NoEffectYet } from '../../ui/NoEffectYet.tsx'
import { heldIn, mayToggle, type RolesDraft } from './draft.ts'

interface Props {
  readonly view: RolesView
  readonly draft: RolesDraft
  readonly onToggle: (role: RoleDetailView, privilege: Privilege) => void
}

const groups = Object.entries(privilegeGroups) as [PrivilegeGroup, readonly Privilege[]][]
const rows = groups.flatMap(([group, names]) =>
  names.map((privilege, index) => ({ group, privilege, index })),
)

/** Privileges down, roles across, the highest rank first. One cell is in the order of the tab key; arrows move it. */
export function RoleGrid({ view, draft, onToggle }: Props) {
  const grid = useRef<HTMLTableElement>(null)
  const [at, setAt] = useState<Cell>({ row: 0, column: 0 })
  const onKeyDown = (event: KeyboardEvent) => {
    const step = steps[event.key]
    if (step === undefined) return
    event.preventDefault()
    const row = Math.min(Math.max(at.row + step[0], 0), rows.length - 1)
    const column = Math.min(Math.max(at.column + step[1], 0), view.roles.length - 1)
    grid.current?.querySelector<HTMLElement>(`[data-cell="${row}-${column}"]`)?.focus()
  }
  const onFocus = (event: FocusEvent) => setAt(cellOf(event.target) ?? at)
  const onClick = (event: MouseEvent) => {
    const cell = cellOf(event.target)
    const role = cell === undefined ? undefined : view.roles[cell.column]
    const privilege = cell === undefined ? undefined : rows[cell.row]?.privilege
    if (role !== undefined && privilege !== undefined && mayToggle(view, role, privilege))
      onToggle(role, privilege)
  }
  return (
    <main className="min-h-0 overflow-auto px-4">
      <table
        ref={grid}
        role="grid"
        aria-label="Matrix of roles and privileges"
        className="border-collapse"
        {...{ onKeyDown, onFocus, onClick }}
      >
        <Heads view={view} />
        <tbody>
          {rows.map(({ group, privilege, index }, row) => (
            <tr
              key={privilege}
              className={index === 0 ? 'border-t border-base-content' : 'border-t border-base-300'}
            >
              <RowHead group={index === 0 ? group : ''} privilege={privilege} />
              {view.roles.map((role, column) => (
                <GridCell
                  key={role.id}
                  role={role}
                  privilege={privilege}
                  cell={`${row}-${column}`}
                  isHeld={heldIn(draft, role).includes(privilege)}
                  isOpen={mayToggle(view, role, privilege)}
                  isCurrent={row === at.row && column === at.column}
                />
              ))}
              <td className="quiet pl-3 text-right text-sm tabular-nums">{view.people[privilege]}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </main>
  )
}

interface Cell {
  readonly row: number
  readonly column: number
}

/** The cells tell where they stand and the grid listens for all of them: two thousand need not be drawn anew for one. */
function cellOf(target: EventTarget): Cell | undefined {
  const cell = target instanceof Element ? target.closest('[data-cell]')?.getAttribute('data-cell') : null
  const [row, column] = (cell ?? '').split('-').map(Number)
  return cell == null || row === undefined || column === undefined ? undefined : { row, column }
}

const RowHead = ({ group, privilege }: { readonly group: string; readonly privilege: Privilege }) => (
  <th
    scope="row"
    className="sticky left-0 z-10 bg-base-100 py-0.5 pr-4 text-left font-normal whitespace-nowrap"
  >
    <span className="quiet inline-block w-24 text-sm">{group}</span>
    <span className="inline-block first-letter:uppercase">{privilegeWords[privilege]}</span>
    <NoEffectYet privilege={privilege} />
    {privilegeRisks[privilege] !== undefined && (
      <abbr className="ml-1.5 text-sm text-warning no-underline" title={privilegeRisks[privilege]}>
        high risk
      </abbr>
    )}
  </th>
)

const steps: Readonly<Record<string, readonly [number, number] | undefined>> = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
}

const Heads = ({ view }: Pick<Props, 'view'>) => (
  <thead>
    <tr>
      <th scope="col" className="sticky top-0 left-0 z-30 bg-base-100 pb-2 text-left align-bottom text-sm">
        Privilege
      </th>
      {view.roles.map(({ id, name, mayChange, people }) => (
        <th key={id} scope="col" className="sticky top-0 z-20 h-36 w-9 bg-base-100 pb-2 align-bottom">
          <span className="inline-flex rotate-180 items-center gap-1.5 text-sm font-semibold whitespace-nowrap [writing-mode:vertical-rl]">
            {name}
            <span className="quiet font-normal">{people}</span>
            {!mayChange && <Lock size={12} aria-label="you cannot change it" className="quiet rotate-180" />}
          </span>
        </th>
      ))}
      <th
        scope="col"
        className="quiet sticky top-0 z-20 bg-base-100 pb-2 pl-3 text-right align-bottom text-sm"
      >
        people
      </th>
    </tr>
  </thead>
)

interface CellProps {
  readonly role: RoleDetailView
  readonly privilege: Privilege
  readonly cell: string
  readonly isHeld: boolean
  readonly isOpen: boolean
  readonly isCurrent: boolean
}

const GridCell = memo(({ role, privilege, cell, isHeld, isOpen, isCurrent }: CellProps) => {
  const wasHeld = role.privileges.includes(privilege)
  const change = isHeld === wasHeld ? '' : isHeld ? 'would be added' : 'would be removed'
  return (
    <td className="p-0 text-center">
      <button
        type="button"
        data-cell={cell}
        tabIndex={isCurrent ? 0 : -1}
        aria-pressed={isHeld}
        aria-disabled={!isOpen}
        aria-label={`${role.name}: ${privilegeWords[privilege]}${change === '' ? '' : `, ${change}`}`}
        className={`inline-grid size-7 place-items-center ${isOpen ? 'cursor-pointer hover:bg-base-200' : 'cursor-default'}`}
      >
        <Mark isHeld={isHeld} isChanged={change !== ''} isOpen={isOpen} />
      </button>
    </td>
  )
})
GridCell.displayName = 'GridCell'

/** A filled square is held, a dot is not; a change has a plus or a minus in it. */
function Mark({
  isHeld,
  isChanged,
  isOpen,
}: {
  readonly isHeld: boolean
  readonly isChanged: boolean
  readonly isOpen: boolean
}) {
  if (isChanged)
    return (
      <span
        aria-hidden
        className="grid size-4.5 place-items-center border-2 border-warning text-sm leading-none font-bold text-warning"
      >
        {isHeld ? '+' : '−'}
      </span>
    )
  if (isHeld)
    return <span aria-hidden className={`size-3.5 ${isOpen ? 'bg-primary' : 'bg-base-content/50'}`} />
  return <span aria-hidden className="size-1 bg-base-300" />
}
