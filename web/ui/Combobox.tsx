import * as Ariakit from '@ariakit/react'
import { useId, useState } from 'react'

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
  const id = useId()
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
      <Ariakit.Combobox
        className="field"
        aria-label={label}
        placeholder={placeholder}
        autoSelect="always"
        onBlur={() => setTyped('')}
      />
      <Ariakit.ComboboxPopover
        aria-label={label}
        sameWidth
        className="z-20 border border-base-content bg-base-100"
      >
        {found.map(option => (
          <Ariakit.ComboboxItem
            key={option.value}
            id={`${id}-${option.value}`}
            // What is chosen is not text for the field: it goes to whoever asked for it.
            setValueOnClick={false}
            hideOnClick={false}
            focusOnHover
            className="flex cursor-pointer justify-between gap-3 px-2 py-1 data-active-item:bg-base-200"
            onClick={() => choose(option)}
          >
            <span className="truncate">{option.name}</span>
            <span className="quiet shrink-0 text-sm">{option.note}</span>
          </Ariakit.ComboboxItem>
        ))}
        {found.length === 0 && <p className="quiet px-2 py-1">{nobody}</p>}
      </Ariakit.ComboboxPopover>
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
