import * as Ariakit from '@ariakit/react'
import { useState } from 'react'
import { FoundItem, FoundList } from './FoundList.tsx'
import { keepEnter } from './keep-enter.ts'

interface Props<Value extends string> {
  readonly label: string
  readonly value: Value
  readonly options: readonly { readonly value: Value; readonly name: string }[]
  readonly onValue: (value: Value) => void
  /** The label is read and not shown. */
  readonly isQuiet?: boolean
}

/** With more than so many, one finds by typing instead of reading all. */
const readAtMost = 12

/** One of a few things, by a list that opens; one of many, by a part of its name. */
export const Choice = <Value extends string>(props: Props<Value>) =>
  props.options.length > readAtMost ? <Finding {...props} /> : <Listing {...props} />

const Listing = <Value extends string>({ label, value, options, onValue, isQuiet = false }: Props<Value>) => (
  <label className="block">
    {!isQuiet && <span className="label-line">{label}</span>}
    <select
      className="choice"
      aria-label={isQuiet ? label : undefined}
      value={value}
      onChange={event => onValue(event.target.value as Value)}
    >
      {options.map(option => (
        <option key={option.value} value={option.value}>
          {option.name}
        </option>
      ))}
    </select>
  </label>
)

function Finding<Value extends string>({ label, value, options, onValue, isQuiet = false }: Props<Value>) {
  // Nothing typed: the field shows what is chosen, and the list everything.
  const [typed, setTyped] = useState<string>()
  const chosen = options.find(option => option.value === value)?.name ?? ''
  const wanted = (typed ?? '').trim().toLowerCase()
  const found = options.filter(({ name }) => name.toLowerCase().includes(wanted))
  const [isOpen, setOpen] = useState(false)
  const forget = () => {
    setTyped(undefined)
    setOpen(false)
  }
  return (
    <Ariakit.ComboboxProvider
      inputValue={typed ?? chosen}
      setInputValue={setTyped}
      open={isOpen}
      setOpen={opens => (opens ? setOpen(true) : forget())}
    >
      <label className="block" onKeyDown={keepEnter}>
        {!isQuiet && <span className="label-line">{label}</span>}
        <Ariakit.Combobox
          className="choice"
          aria-label={isQuiet ? label : undefined}
          autoSelect="always"
          onFocus={event => event.currentTarget.select()}
          onBlur={forget}
        />
      </label>
      <FoundList label={label} nothing="Nothing found" isEmpty={found.length === 0}>
        {found.map(option => (
          <FoundItem
            key={option.value}
            className={option.value === value ? 'font-semibold' : ''}
            onChoose={() => {
              forget()
              onValue(option.value)
            }}
          >
            {option.name}
          </FoundItem>
        ))}
      </FoundList>
    </Ariakit.ComboboxProvider>
  )
}
