import { useEffect } from 'react'
import type { WorkspaceView } from '#contract/views/workspace.ts'
import { later, useOpenedLater } from '../ui/later.tsx'
import { isTyping } from './is-typing.ts'
import type { CommandsProps } from './CommandList.tsx'

/** Opens the list by the letter a. */
function useKeys(open: () => void): void {
  useEffect(() => {
    const onKey = (event: globalThis.KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey || isTyping(event.target)) return
      if (event.key !== 'a' || document.querySelector('[role=dialog]') !== null) return
      open()
      event.preventDefault()
    }
    addEventListener('keydown', onKey)
    return () => removeEventListener('keydown', onKey)
  }, [open])
}

const list = later<CommandsProps>(async () => (await import('./CommandList.tsx')).CommandList)

/** The list of commands, opened from anywhere. */
export function Commands({ workspace }: { readonly workspace: WorkspaceView }) {
  const { Part: List, isOpen, open, close, want } = useOpenedLater(list)
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
        <kbd className="border border-base-300 px-1 text-xs max-md:hidden">a</kbd>
      </button>
      {List !== undefined && <List workspace={workspace} isOpen={isOpen} onClose={close} />}
    </>
  )
}
