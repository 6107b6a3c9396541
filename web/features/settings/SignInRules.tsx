import { useState } from 'react'
import { Link } from 'react-router'
import type { SettingsView } from '#contract/views/workspace.ts'
import { counted, listed, nounFor, peopleWords } from '#core/words/english.ts'
import { TextField } from '../../ui/TextField.tsx'
import { Tick } from '../../ui/Tick.tsx'
import { Setting } from './Setting.tsx'

/** Whoever holds one of the roles comes in with a second step only. */
export function SignInRules({ settings }: { readonly settings: SettingsView }) {
  const { twoStepFor, roles } = settings
  const [next, setNext] = useState<readonly string[]>(twoStepFor)
  const isChanged = [...next].sort().join() !== [...twoStepFor].sort().join()
  const shut = roles.filter(role => next.includes(role.id)).flatMap(role => role.without)
  const people = [...new Map(shut.map(person => [person.id, person.name])).values()]
  const names = roles.filter(role => twoStepFor.includes(role.id)).map(role => role.name)
  return (
    <>
      <Setting
        title="Two-step sign-in"
        does="People with these roles must set up two-step sign-in before they can open the workspace."
        now={names.length === 0 ? 'Not required for anybody.' : <strong>{listed(names)}</strong>}
        edit={isChanged ? { twoStepFor: [...next] } : undefined}
        label={next.length === 0 ? 'Do not require it' : 'Require it'}
        onLeave={() => setNext(twoStepFor)}
      >
        <fieldset className="grid gap-1.5">
          <legend className="label-line">Required for</legend>
          {roles.map(role => (
            <Tick
              key={role.id}
              isOn={next.includes(role.id)}
              onTick={isOn => setNext(isOn ? [...next, role.id] : next.filter(each => each !== role.id))}
            >
              {role.name}{' '}
              <span className="quiet">
                {peopleWords(role.people)}, {role.without.length} without two-step sign-in
              </span>
            </Tick>
          ))}
        </fieldset>
        {isChanged && (
          <p className={`text-sm ${people.length > 0 ? 'text-warning' : ''}`}>
            {people.length === 0
              ? 'All people with these roles have set it up.'
              : `${listed(people)} ${nounFor(people.length, 'has', 'have')} not set it up and must do so at the next sign-in.`}
          </p>
        )}
      </Setting>
      <Ends settings={settings} />
      <p className="border-t border-base-content py-4 text-sm">
        Passwords must have at least 12 characters and be hard to guess. After wrong tries, sign-in waits.
        Links in mails work once, for a limited time. These rules cannot be changed. Set up two-step sign-in
        for yourself under{' '}
        <Link className="link" to="/account">
          Your account
        </Link>
        .
      </p>
    </>
  )
}

/** End of sign-ins by itself. */
function Ends({ settings: { signInDays, idleHours } }: { readonly settings: SettingsView }) {
  const [days, setDays] = useState(String(signInDays))
  const [hours, setHours] = useState(String(idleHours))
  const next = { signInDays: Number(days), idleHours: Number(hours) }
  const isGood = isWhole(next.signInDays, 90) && isWhole(next.idleHours, 90 * 24)
  const isChanged = next.signInDays !== signInDays || next.idleHours !== idleHours
  const leave = () => {
    setDays(String(signInDays))
    setHours(String(idleHours))
  }
  return (
    <Setting
      title="End of sign-ins"
      does="People then have to sign in again to open this workspace. It applies at once, also to present sign-ins. An open page counts as use."
      now={
        <strong>
          After {countOf(signInDays, 'day')}, or {lengthWords(idleHours)} without use
        </strong>
      }
      edit={isGood && isChanged ? next : undefined}
      label="Save"
      onLeave={leave}
    >
      <div className="flex flex-wrap gap-3">
        <TextField label="Days in total" type="number" min={1} max={90} value={days} onValue={setDays} />
        <TextField
          label="Hours without use"
          type="number"
          min={1}
          max={90 * 24}
          value={hours}
          onValue={setHours}
        />
      </div>
    </Setting>
  )
}

const isWhole = (value: number, most: number) => Number.isInteger(value) && value >= 1 && value <= most

const lengthWords = (hours: number) =>
  hours % 24 === 0 ? countOf(hours / 24, 'day') : countOf(hours, 'hour')

const countOf = (count: number, what: string) => counted(count, what, `${what}s`)
