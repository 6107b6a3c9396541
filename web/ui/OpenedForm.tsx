import { type ReactNode, useEffect, useRef } from 'react'
import { onSubmit } from './on-submit.ts'
import { useEscape } from './use-escape.ts'
import { useOpener } from './use-opener.ts'

interface Props {
  /** What it does, for whoever hears the page. */
  readonly label: string
  readonly className?: string
  /** It has grown since it opened, by its effect. */
  readonly isGrown?: boolean
  readonly onAct: () => Promise<void>
  readonly onLeave: () => void
  readonly children: ReactNode
}

/** A form that a button opens: it takes the focus and comes into sight; Escape leaves it. */
export function OpenedForm({
  label,
  className = 'mt-2 grid gap-3 bg-base-200 p-3',
  isGrown = false,
  onAct,
  onLeave,
  children,
}: Props) {
  const form = useRef<HTMLFormElement>(null)
  useOpener(form)
  const escape = useEscape(onLeave)
  // It opens below what opened it, at times below the edge.
  useEffect(() => {
    form.current?.scrollIntoView({ block: 'nearest' })
  }, [isGrown])
  return (
    <form
      ref={form}
      aria-label={label}
      tabIndex={-1}
      className={className}
      onSubmit={onSubmit(onAct)}
      {...escape}
    >
      {children}
    </form>
  )
}
