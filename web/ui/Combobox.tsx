import { type KeyboardEvent, useId, useState } from 'react'

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
  const [active, setActive] = useState(0)
  const found = matching(options, typed, offer)
  const choose = (option: Option | undefined) => {
    if (option === undefined) return
    setTyped('')
    setActive(0)
    onChoose(option)
  }
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key === 'Escape' && typed !== '') setTyped('')
    else if (event.key === 'Enter') choose(found[active])
    else if (event.key === 'ArrowDown') setActive(Math.min(active + 1, found.length - 1))
    else if (event.key === 'ArrowUp') setActive(Math.max(active - 1, 0))
    else return
    event.preventDefault()
  }
  const isOpen = typed !== ''
  return (
    <div className="relative">
      <input
        className="field"
        role="combobox"
        aria-label={label}
        aria-expanded={isOpen}
        aria-controls={id}
        aria-autocomplete="list"
        aria-activedescendant={isOpen && found.length > 0 ? `${id}-${active}` : undefined}
        placeholder={placeholder}
        value={typed}
        onChange={event => {
          setTyped(event.target.value)
          setActive(0)
          onTyped?.(event.target.value)
        }}
        onKeyDown={onKeyDown}
        onBlur={() => setTyped('')}
      />
      <Found
        id={id}
        label={label}
        isOpen={isOpen}
        found={found}
        active={active}
        nobody={nobody}
        onChoose={choose}
      />
    </div>
  )
}

interface FoundProps {
  readonly id: string
  readonly label: string
  readonly isOpen: boolean
  readonly found: readonly Option[]
  readonly active: number
  readonly nobody: string
  readonly onChoose: (option: Option) => void
}

const Found = ({ id, label, isOpen, found, active, nobody, onChoose }: FoundProps) => (
  <ul
    id={id}
    role="listbox"
    aria-label={label}
    hidden={!isOpen}
    className="absolute inset-x-0 z-20 border border-base-content bg-base-100"
  >
    {found.map((option, index) => (
      <li
        key={option.value}
        id={`${id}-${index}`}
        role="option"
        aria-selected={index === active}
        className={`flex cursor-pointer justify-between gap-3 px-2 py-1 ${index === active ? 'bg-base-200' : ''}`}
        onMouseDown={event => {
          event.preventDefault()
          onChoose(option)
        }}
      >
        <span className="truncate">{option.name}</span>
        <span className="quiet shrink-0 text-sm">{option.note}</span>
      </li>
    ))}
    {found.length === 0 && <li className="quiet px-2 py-1">{nobody}</li>}
  </ul>
)

function matching(options: readonly Option[], typed: string, offer: Props['offer']): Option[] {
  const wanted = typed.trim().toLowerCase()
  const found = options.filter(
    option => option.name.toLowerCase().includes(wanted) || option.note.toLowerCase().includes(wanted),
  )
  const offered = offer?.(typed.trim())
  return [...found.slice(0, shownAtMost), ...(offered === undefined ? [] : [offered])]
}
