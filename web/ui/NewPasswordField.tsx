import { useEffect, useState } from 'react'
import type { PasswordOf } from '#contract/password.ts'
import { TextField } from './TextField.tsx'

interface Props {
  readonly label: string
  readonly value: string
  readonly onValue: (value: string) => void
  /** Whose it is: others would try these words first. */
  readonly of: PasswordOf
  /** What else there is to say of it. */
  readonly note?: string
}

const asking = 'At least 12 characters. Several words in a row are a good choice.'

/** A password that is chosen: while it is typed it says in words what makes it too weak. */
export function NewPasswordField({ label, value, onValue, of, note }: Props) {
  const advice = useStrength(value, of)
  const hint = [advice ?? asking, note].filter(Boolean).join(' ')
  return (
    <TextField
      label={label}
      type="password"
      autoComplete="new-password"
      hint={hint}
      isHintLive
      required
      value={value}
      onValue={onValue}
    />
  )
}

/** The lists of words are large: they are fetched once somebody types. */
function useStrength(password: string, { mail, words }: PasswordOf): string | undefined {
  const [advice, setAdvice] = useState<{ readonly of: string; readonly words: string }>()
  const known = words.join('\n')
  useEffect(() => {
    if (password === '') return
    let isWanted = true
    const timer = setTimeout(() => {
      void import('#contract/password.ts').then(({ passwordFault, passwordFaults }) => {
        const fault = passwordFault(password, { mail, words: known.split('\n') })
        if (isWanted) setAdvice({ of: password, words: fault === undefined ? strong : passwordFaults[fault] })
      })
    }, 200)
    return () => {
      isWanted = false
      clearTimeout(timer)
    }
  }, [password, mail, known])
  return password === '' ? undefined : advice?.words
}

const strong = 'This is hard to guess.'
