import { type KeyboardEvent, type SyntheticEvent, useRef } from 'react'

interface Handlers {
  readonly onKeyDown: (event: KeyboardEvent) => void
  readonly onInput: (event: SyntheticEvent) => void
}

/**
 * Escape leaves what these handlers are put on. What a field makes of Escape itself comes first, and words that were
 * typed are not thrown away by one key.
 */
export function useEscape(onLeave: () => void): Handlers {
  const isTyped = useRef(false)
  return {
    onInput: ({ target }) => {
      if (isForWords(target)) isTyped.current = true
    },
    onKeyDown: event => {
      if (event.key !== 'Escape' || event.defaultPrevented) return
      event.preventDefault()
      if (!isTyped.current) onLeave()
    },
  }
}

const isForWords = (field: EventTarget): boolean =>
  field instanceof HTMLTextAreaElement ||
  (field instanceof HTMLInputElement && field.type === 'text' && field.getAttribute('role') !== 'combobox')
