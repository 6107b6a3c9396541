import * as Ariakit from '@ariakit/react'
import { useState } from 'react'
import { FoundItem, FoundList } from './FoundList.tsx'
import { keepEnter } from './keep-enter.ts'

export interface Option {
  readonly value: string
  readonly name: string
  readonly note: string
}

interface Props {
  readonly label: string
  readonly placeholder: string
  readonly options: readonly Option[]
  /** What was typed, where it is something else than an option: an address, say. */
  readonly offer?: (typed: string) => Option | undefined
  /** Said where nothing fits. */
  readonly nobody?: string
  readonly onChoose: (option: Option) => void
  /** Told what is typed, where the options are looked up elsewhere. */
  readonly onTyped?: (typed: string) => void
}

const shownAtMost = 8

/** A field that finds people and teams as one types; arrows and Enter choose. */
export function Combobox({
  label,
  placeholder,
  options,
  offer,
  nobody = 'Nobody found',
  onChoose,
  onTyped,
}: Props) {
  const [typed, setTyped] = useState('')
  const found = matching(options, typed, offer)
  const type = (text: string) => {
    setTyped(text)
    onTyped?.(text)
  }
  const choose = (option: Option) => {
    setTyped('')
    onChoose(option)
  }
  return (
    <Ariakit.ComboboxProvider
      inputValue={typed}
      setInputValue={type}
      open={typed !== ''}
      setOpen={isOpen => {
        if (!isOpen) setTyped('')
      }}
    >
      <div onKeyDown={keepEnter}>
        <Ariakit.Combobox
          className="field"
          aria-label={label}
          placeholder={placeholder}
          autoSelect="always"
          onBlur={() => setTyped('')}
        />
      </div>
      <FoundList label={label} nothing={nobody} isEmpty={found.length === 0}>
        {found.map(option => (
          <FoundItem
            key={option.value}
            className="flex justify-between gap-3"
            onChoose={() => choose(option)}
          >
            <span className="truncate">{option.name}</span>
            <span className="quiet shrink-0 text-sm">{option.note}</span>
          </FoundItem>
        ))}
      </FoundList>
    </Ariakit.ComboboxProvider>
  )
}

function matching(options: readonly Option[], typed: string, offer: Props['offer']): Option[] {
  const wanted = typed.trim().toLowerCase()
  const found = options.filter(
    option => option.name.toLowerCase().includes(wanted) || option.note.toLowerCase().includes(wanted),
  )
  const offered = offer?.(typed.trim())
  return [...found.slice(0, shownAtMost), ...(offered === undefined ? [] : [offered])]
}
