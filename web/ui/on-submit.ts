import type { SyntheticEvent } from 'react'

/** For a form's onSubmit: keeps the page and runs the act. */
export const onSubmit = (act: () => Promise<void>) => (event: SyntheticEvent) => {
  event.preventDefault()
  void act()
}
