import { useState } from 'react'
import type { AccountView } from '#contract/views/account.ts'
import { useChangeAccountMutation } from '../../api/account.ts'
import { Choice } from '../../ui/Choice.tsx'
import { onSubmit } from '../../ui/on-submit.ts'
import { TextField } from '../../ui/TextField.tsx'

/** Words stay English; dates are written as people of a language write them. */
const languages = [
  'en-GB',
  'en-US',
  'de-DE',
  'fr-FR',
  'nl-NL',
  'es-ES',
  'it-IT',
  'pl-PL',
  'sv-SE',
  'fi-FI',
  'ja-JP',
]

/** One's name at sign-in, and how dates are written for one. */
export function Dates({ account }: { readonly account: AccountView }) {
  const [change] = useChangeAccountMutation()
  const [name, setName] = useState(account.name)
  const names = new Intl.DisplayNames(['en'], { type: 'language' })
  const zones = Intl.supportedValuesOf('timeZone')
  return (
    <section aria-label="Name and dates">
      <h2 className="mb-2 border-b border-base-300 pb-1 font-bold">Name and dates</h2>
      <div className="grid gap-3">
        <form
          className="flex items-end gap-2"
          onSubmit={onSubmit(async () => {
            await change({ name: name.trim() })
          })}
        >
          <div className="grow">
            <TextField label="Your name in new workspaces" required value={name} onValue={setName} />
          </div>
          <button className="btn-plain" disabled={name.trim() === '' || name.trim() === account.name}>
            Save
          </button>
        </form>
        <Choice
          label="Language of dates"
          value={account.language}
          options={languages.map(value => ({ value, name: names.of(value) ?? value }))}
          onValue={language => void change({ language })}
        />
        <Choice
          label="Time zone"
          value={account.timeZone ?? ''}
          options={[
            { value: '', name: 'Time zone of this device' },
            ...zones.map(value => ({ value, name: value.replaceAll('_', ' ') })),
          ]}
          onValue={timeZone => void change({ timeZone: timeZone === '' ? null : timeZone })}
        />
      </div>
    </section>
  )
}
