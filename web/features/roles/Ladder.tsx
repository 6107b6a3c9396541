import { type DragEvent, type KeyboardEvent, useEffect, useId, useRef, useState } from 'react'
import type { RoleDetailView, RolesView } from '#contract/views/roles.ts'
import { slotOf, slotsFor, type Slot, standingOf } from './ranks.ts'

interface Props {
  readonly view: RolesView
  readonly role: string | undefined
  readonly name: string
  readonly rank: number
  readonly onRank: (rank: number) => void
}

/** The ladder of ranks with one role on it, which is dragged, or moved by the arrow keys, onto a rank or between two. */
export function Ladder({ view, role, name, rank, onRank }: Props) {
  const id = useId()
  const slots = slotsFor(view.roles, role)
  const at = slotOf(slots, rank)
  const [isByKey, setByKey] = useState(false)
  const isFree = (slot: Slot | undefined) => slot !== undefined && slot.rank < (view.below ?? 0)
  const move = (to: number) => {
    const slot = slots[to]
    if (slot !== undefined && isFree(slot)) onRank(slot.rank)
  }
  const onKeyDown = (event: KeyboardEvent) => {
    const step = event.key === 'ArrowUp' ? -1 : event.key === 'ArrowDown' ? 1 : 0
    if (step === 0) return
    event.preventDefault()
    setByKey(true)
    move(at + step)
  }
  return (
    <div>
      <p id={id} className="label-line">
        Rank
      </p>
      <p className="quiet mb-1 text-sm">
        People with a role act on people of lower ranks. A role can be assigned by people of higher ranks.
        Drag it, or use the arrow keys.
      </p>
      <ol aria-labelledby={id} className="border-x-2 border-base-content/60">
        {slots.map((slot, index) => (
          <Rank
            key={slot.roles.length === 0 ? `gap ${slots[index - 1]?.rank ?? 100}` : slot.rank}
            slot={slot}
            isFree={isFree(slot)}
            mover={
              index === at ? (
                <Mover
                  name={name}
                  standing={standingOf(view.roles, role, rank)}
                  slots={slots}
                  isFocused={isByKey}
                  at={at}
                  onKeyDown={onKeyDown}
                />
              ) : null
            }
            onDrop={() => {
              setByKey(false)
              move(index)
            }}
          />
        ))}
      </ol>
      <p className="mt-1 text-sm" aria-live="polite">
        {standingOf(view.roles, role, rank)}
      </p>
    </div>
  )
}

interface RankProps {
  readonly slot: Slot
  readonly isFree: boolean
  readonly mover: React.ReactNode
  readonly onDrop: () => void
}

function Rank({ slot, isFree, mover, onDrop }: RankProps) {
  const drop = {
    onDragOver: (event: DragEvent) => {
      if (isFree) event.preventDefault()
    },
    onDrop: (event: DragEvent) => {
      event.preventDefault()
      onDrop()
    },
  }
  const isGap = slot.roles.length === 0
  return (
    <li
      {...drop}
      className={`flex flex-wrap items-center gap-x-3 px-2 ${isGap && mover === null ? 'h-2.5' : 'min-h-7 py-0.5'} ${isGap && mover === null ? '' : 'border-b border-base-content/60'}`}
    >
      {mover}
      <span className={`text-sm ${isFree ? '' : 'quiet'}`}>{namesOf(slot.roles)}</span>
    </li>
  )
}

const namesOf = (roles: readonly RoleDetailView[]) => roles.map(each => each.name).join(', ')

interface MoverProps {
  readonly name: string
  readonly standing: string
  readonly slots: readonly Slot[]
  readonly at: number
  /** It was moved by a key: the next key is meant for it too. */
  readonly isFocused: boolean
  readonly onKeyDown: (event: KeyboardEvent) => void
}

/** The role itself: what is dragged, and what the arrow keys move. On another rank it is drawn anew. */
function Mover({ name, standing, slots, at, isFocused, onKeyDown }: MoverProps) {
  const mover = useRef<HTMLSpanElement>(null)
  useEffect(() => {
    if (isFocused) mover.current?.focus()
  }, [isFocused])
  return (
    <span
      ref={mover}
      role="slider"
      tabIndex={0}
      draggable
      aria-label="Rank"
      aria-orientation="vertical"
      aria-valuemin={1}
      aria-valuemax={slots.length}
      aria-valuenow={slots.length - at}
      aria-valuetext={standing}
      className="cursor-grab bg-primary px-2 py-px text-sm font-semibold text-primary-content"
      onKeyDown={onKeyDown}
      onDragStart={event => event.dataTransfer.setData('text/plain', name)}
    >
      {name === '' ? 'this role' : name}
    </span>
  )
}
