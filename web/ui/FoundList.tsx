import * as Ariakit from '@ariakit/react'
import type { ReactNode } from 'react'

interface Props {
  readonly label: string
  /** Said where nothing is found. */
  readonly nothing: string
  readonly isEmpty: boolean
  readonly children: ReactNode
}

/** What a field finds, below it. */
export const FoundList = ({ label, nothing, isEmpty, children }: Props) => (
  <Ariakit.ComboboxPopover
    aria-label={label}
    sameWidth
    className="z-20 max-h-72 overflow-y-auto border border-base-content bg-base-100"
  >
    {children}
    {isEmpty && <NothingFound>{nothing}</NothingFound>}
  </Ariakit.ComboboxPopover>
)

/** Said in the list itself: a list without an entry is none to whoever hears the page. */
export const NothingFound = ({ children }: { readonly children: string }) => (
  <Ariakit.ComboboxItem disabled className="quiet px-2 py-1">
    {children}
  </Ariakit.ComboboxItem>
)

interface ItemProps {
  readonly className?: string
  readonly onChoose: () => void
  readonly children: ReactNode
}

/** One of it. What is chosen is not put into the field as text: it goes to whoever asked for it, who shuts the list too. */
export const FoundItem = ({ className = '', onChoose, children }: ItemProps) => (
  <Ariakit.ComboboxItem
    setValueOnClick={false}
    hideOnClick={false}
    focusOnHover
    className={`cursor-pointer px-2 py-1 data-active-item:bg-base-200 ${className}`}
    onClick={onChoose}
  >
    {children}
  </Ariakit.ComboboxItem>
)
