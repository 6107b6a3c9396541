import { type RefObject, useEffect, useState } from 'react'

/**
 * What a button opens takes the focus, in its first field; once it is gone the focus is at that button again. What
 * appears beside a field that one is changing, or a cell of a grid, takes nothing.
 */
export function useOpener(place: RefObject<HTMLElement | null>): void {
  // Looked up while the button still stands: often what it opens takes its place.
  const [opener] = useState(openerNow)
  useEffect(() => {
    const opened = place.current
    if (opener === undefined || opened === null) return
    if (!opened.contains(document.activeElement))
      (opened.querySelector<HTMLElement>(firstField) ?? opened).focus()
    return () => giveBack(opener)
  }, [opener, place])
}

const firstField = [
  'input:not(:disabled):not([type=radio]):not([type=file])',
  'input:checked:not(:disabled)',
  'select:not(:disabled)',
  'textarea:not(:disabled)',
].join()

interface Opener {
  readonly button: HTMLButtonElement
  readonly words: string | null
  /** Its place among the buttons of the same words: after it was away, another element stands there. */
  readonly nth: number
}

function openerNow(): Opener | undefined {
  const active = document.activeElement
  // What was chosen out of a menu was opened by the menu's button.
  const menu = active?.closest('[role=menu]')
  const button = menu ? document.querySelector(`button[aria-controls="${menu.id}"]`) : active
  if (!(button instanceof HTMLButtonElement) || button.closest('[role=grid]') !== null) return undefined
  const words = button.textContent
  return { button, words, nth: buttonsSaying(words).indexOf(button) }
}

function giveBack({ button, words, nth }: Opener): void {
  if (document.activeElement !== document.body) return
  const now = button.isConnected ? button : buttonsSaying(words)[nth]
  now?.focus()
}

const buttonsSaying = (words: string | null): HTMLButtonElement[] =>
  [...document.querySelectorAll('button')].filter(each => each.textContent === words)
