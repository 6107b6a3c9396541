import { useEffect, useEffectEvent, useState } from 'react'
import type { WorkspaceView } from '#contract/views/workspace.ts'
import { later, useOpenedLater } from '../ui/later.tsx'
import { isTyping } from './is-typing.ts'
import type { SearchBoxProps } from './SearchBox.tsx'

const box = later<SearchBoxProps>(async () => (await import('./SearchBox.tsx')).SearchBox)

/** The field in the band by which everything is found: a slash opens it from anywhere. */
export function Search({ workspace }: { readonly workspace: WorkspaceView }) {
  const { Part: Box, isOpen, open, close, want } = useOpenedLater(box)
  const [typed, setTyped] = useState('')
  const onClose = () => {
    close()
    setTyped('')
  }
  const onType = (key: string) => {
    // Where the box could not be fetched, each key tries again.
    want()
    setTyped(now => now + key)
  }
  useKeys(open)
  useEarlyKeys({ isOpen, onType, onClose })
  return (
    <>
      <button
        type="button"
        className="ml-auto flex h-7 w-44 cursor-text items-center justify-between self-center border border-base-content/50 bg-base-100 px-2 text-sm max-lg:w-28 max-md:w-20"
        aria-haspopup="dialog"
        aria-keyshortcuts="/"
        onPointerEnter={want}
        onFocus={want}
        onClick={open}
      >
        <span className="quiet">Search</span>
        <kbd className="border border-base-300 px-1 text-xs max-md:hidden">/</kbd>
      </button>
      {Box !== undefined && <Box {...{ workspace, isOpen, onClose, typed }} onType={setTyped} />}
    </>
  )
}

interface EarlyKeys {
  readonly isOpen: boolean
  readonly onType: (key: string) => void
  readonly onClose: () => void
}

/** What is typed between the slash and the field goes into it, and not to other keys of the page. */
function useEarlyKeys({ isOpen, onType, onClose }: EarlyKeys): void {
  const onEarly = useEffectEvent(onType)
  const onEscape = useEffectEvent(onClose)
  useEffect(() => {
    if (!isOpen) return
    const onKey = (event: globalThis.KeyboardEvent) => {
      if (event.key === 'Escape') onEscape()
      if (event.key.length !== 1 || isElsewhere(event)) return
      event.preventDefault()
      event.stopPropagation()
      onEarly(event.key)
    }
    addEventListener('keydown', onKey, true)
    return () => removeEventListener('keydown', onKey, true)
  }, [isOpen])
}

/** A slash looks for everything, f for something on this page. */
function useKeys(open: () => void): void {
  useEffect(() => {
    const onKey = (event: globalThis.KeyboardEvent) => {
      if (isElsewhere(event) || document.querySelector('[role=dialog]') !== null) return
      const onPage = document.querySelector<HTMLElement>('[data-find]')
      if (event.key === '/') open()
      else if (event.key === 'f' && onPage !== null) onPage.focus()
      else return
      event.preventDefault()
    }
    addEventListener('keydown', onKey)
    return () => removeEventListener('keydown', onKey)
  }, [open])
}

/** Keys that are for the browser, or for a field. */
const isElsewhere = (event: globalThis.KeyboardEvent): boolean =>
  event.ctrlKey || event.metaKey || event.altKey || isTyping(event.target)
