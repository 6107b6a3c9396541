import type { KeyboardEvent } from 'react'

/**
 * Enter in a field that finds chooses what is found; where nothing is, it does not send the form around the field either. For
 * the element around the field: the field's own keys come first.
 */
export const keepEnter = (event: KeyboardEvent): void => {
  if (event.key === 'Enter') event.preventDefault()
}
