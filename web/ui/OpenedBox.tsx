import { type ReactNode, useRef } from 'react'
import { useEscape } from './use-escape.ts'
import { useOpener } from './use-opener.ts'

/** What a button opens where something is chosen before there is a form: takes the focus, and Escape leaves it. */
export function OpenedBox({
  onLeave,
  children,
}: {
  readonly onLeave: () => void
  readonly children: ReactNode
}) {
  const box = useRef<HTMLDivElement>(null)
  useOpener(box)
  return (
    <div ref={box} className="mt-2 bg-base-200 p-3" {...useEscape(onLeave)}>
      {children}
    </div>
  )
}
