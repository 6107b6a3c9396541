import { TextField } from './TextField.tsx'

interface Props {
  readonly code: string
  readonly onCode: (code: string) => void
  /** Where nothing else is asked for any more. */
  readonly isAlone?: boolean
}

/** A code of the second step. */
export const CodeField = ({ code, onCode, isAlone = false }: Props) => (
  <TextField
    label="Code"
    hint="The six digits in your app, or one of your recovery codes."
    autoComplete="one-time-code"
    autoFocus={isAlone}
    required
    maxLength={40}
    value={code}
    onValue={onCode}
  />
)
