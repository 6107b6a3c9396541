import { useEffect, useRef } from 'react'
import { skipToken } from '@reduxjs/toolkit/query'
import type { EditRequest } from '#contract/edit-requests.ts'
import { placesWords } from '#core/words/english.ts'
import { useNodeQuery } from '../../api/api.ts'
import { useDecision } from '../../api/use-decision.ts'
import { useHere } from '../../api/use-here.ts'
import { useAppDispatch, useAppSelector } from '../../store/store.ts'
import { moveTo, startPicking, type View } from '../../store/view.ts'
import { Decision } from '../../ui/Decision.tsx'

/** What was dragged, or put in by keys, is not moved before one has seen what that does to whom. */
export function MoveHere() {
  const moving = useAppSelector(state => state.view.moving)
  return moving === null ? null : <Moving key={`${moving.places.join()} ${moving.to}`} moving={moving} />
}

function Moving({ moving: { places, to } }: { readonly moving: NonNullable<View['moving']> }) {
  const { slug } = useHere()
  const dispatch = useAppDispatch()
  const [first] = places
  const { data: goal } = useNodeQuery({ slug, id: to })
  const { data: one } = useNodeQuery(
    places.length === 1 && first !== undefined ? { slug, id: first } : skipToken,
  )
  const leave = () => dispatch(moveTo(null))
  const what = one?.name ?? placesWords(places.length)
  const where = goal?.name ?? '…'
  const edits = places.map((node): EditRequest => ({ kind: 'node.move', node, parent: to }))
  const decision = useDecision(
    edits,
    `${what} ${places.length === 1 ? 'is' : 'are'} now in ${where}.`,
    () => {
      leave()
      dispatch(startPicking(false))
    },
  )
  const box = useRef<HTMLDivElement>(null)
  // Nobody pressed a button for it: it takes the focus by itself, and gives it back.
  useEffect(() => {
    const before = document.activeElement
    box.current?.focus()
    return () => {
      if (document.activeElement === document.body && before instanceof HTMLElement) before.focus()
    }
  }, [])
  return (
    <div
      ref={box}
      role="dialog"
      tabIndex={-1}
      aria-label={`Move ${what} to ${where}`}
      className="fixed right-4 outline-none bottom-12 z-30 max-h-[70dvh] w-[min(30rem,calc(100vw-2rem))] overflow-y-auto border border-base-content bg-base-100 px-3 pt-2 pb-3"
    >
      <p>
        <strong>{what}</strong> to <strong>{where}</strong>
      </p>
      <Decision label={`Move to ${where}`} onLeave={leave} {...decision}>
        <p className="text-sm">Grants on what is moved go with it. Inherited grants do not.</p>
      </Decision>
    </div>
  )
}
