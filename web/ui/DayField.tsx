import { CalendarDays } from 'lucide-react'
import { useEffect, useId, useMemo, useRef, useState } from 'react'
import { useDates } from './dates.tsx'
import { dayForm } from './day-form.ts'

interface Props {
  readonly label: string
  /** The label is read and not shown. */
  readonly isQuiet?: boolean
  readonly hint?: string
  /** YYYY-MM-DD; empty for none. */
  readonly value: string
  readonly onValue: (day: string) => void
  readonly required?: boolean
  readonly disabled?: boolean
}

/** A day, written as its reader writes days, or chosen in the browser's calendar. */
export function DayField({ label, isQuiet = false, hint, value, onValue, ...input }: Props) {
  const id = useId()
  const inWords = useDates()
  const { pattern, read, write } = useMemo(() => dayForm(at => inWords(at, 'numbers', 'UTC')), [inWords])
  // What is being typed: it is not written anew under the hands of whoever types it.
  const [typed, setTyped] = useState<string>()
  const field = useRef<HTMLInputElement>(null)
  const isWrong = typed !== undefined && typed.trim() !== '' && read(typed) === undefined
  const wrong = `Write the day like this: ${write('2027-03-28')}.`
  useEffect(() => {
    field.current?.setCustomValidity(isWrong ? wrong : '')
  }, [isWrong, wrong])
  const type = (text: string) => {
    setTyped(text)
    onValue(read(text) ?? '')
  }
  return (
    <div>
      <label htmlFor={id} className={isQuiet ? 'sr-only' : 'label-line'}>
        {label}
      </label>
      <div className="flex">
        <input
          {...input}
          ref={field}
          id={id}
          className="field"
          inputMode="numeric"
          autoComplete="off"
          placeholder={pattern}
          value={typed ?? write(value)}
          aria-invalid={isWrong}
          aria-describedby={isWrong || hint !== undefined ? `${id}-hint` : undefined}
          onChange={event => type(event.target.value)}
          onBlur={() => {
            if (!isWrong) setTyped(undefined)
          }}
        />
        <Calendar
          label={label}
          value={value}
          isDisabled={input.disabled === true}
          onValue={day => {
            setTyped(undefined)
            onValue(day)
          }}
        />
      </div>
      {(isWrong || hint !== undefined) && (
        <p
          id={`${id}-hint`}
          className={`mt-1 text-sm ${isWrong ? 'text-error' : 'quiet'}`}
          aria-live="polite"
        >
          {isWrong ? wrong : hint}
        </p>
      )}
    </div>
  )
}

interface CalendarProps {
  readonly label: string
  readonly value: string
  readonly isDisabled: boolean
  readonly onValue: (day: string) => void
}

/** The browser's own calendar, opened by a button: its field is out of sight, since it writes days in its own form. */
function Calendar({ label, value, isDisabled, onValue }: CalendarProps) {
  const native = useRef<HTMLInputElement>(null)
  return (
    <span className="relative">
      <button
        type="button"
        className="btn btn-sm -ml-px border-base-content/50 bg-base-100 px-2"
        aria-label={`Calendar: ${label}`}
        disabled={isDisabled}
        onClick={() => native.current?.showPicker()}
      >
        <CalendarDays size={15} aria-hidden />
      </button>
      <input
        ref={native}
        type="date"
        className="pointer-events-none absolute bottom-0 left-0 h-0 w-0 opacity-0"
        tabIndex={-1}
        aria-hidden
        value={value}
        onChange={event => onValue(event.target.value)}
      />
    </span>
  )
}
