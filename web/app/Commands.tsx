import { useCallback, useEffect, useState } from 'react'
import type { WorkspaceView } from '#contract/views/workspace.ts'
import { later, useLater } from '../ui/later.tsx'
import type { CommandsProps } from './CommandList.tsx'

const isTyping = (target: EventTarget | null) =>
  target instanceof HTMLElement &&
  (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName))

/** Opens the list by the letter a; a slash goes to the field that finds on this page. */
function useKeys(open: () => void): void {
  useEffect(() => {
    const onKey = (event: globalThis.KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey || isTyping(event.target)) return
      if (event.key === 'a' && document.querySelector('[role=dialog]') === null) open()
      else if (event.key === '/') document.querySelector<HTMLElement>('[data-find]')?.focus()
      else return
      event.preventDefault()
    }
    addEventListener('keydown', onKey)
    return () => removeEventListener('keydown', onKey)
  }, [open])
}

const list = later<CommandsProps>(async () => (await import('./CommandList.tsx')).CommandList)

/** The list of commands, opened from anywhere. */
export function Commands({ workspace }: { readonly workspace: WorkspaceView }) {
  const [isOpen, setOpen] = useState(false)
  const [List, want] = useLater(list)
  const open = useCallback(() => {
    want()
    setOpen(true)
  }, [want])
  useKeys(open)
  return (
    <>
      <button
        type="button"
        className="flex cursor-pointer items-center gap-1.5 text-sm"
        onPointerEnter={want}
        onFocus={want}
        onClick={open}
      >
        <span className="btn-inline">Commands</span>
        <kbd className="border border-base-300 px-1 text-xs">a</kbd>
      </button>
      {List !== undefined && <List workspace={workspace} isOpen={isOpen} onClose={() => setOpen(false)} />}
    </>
  )
}
