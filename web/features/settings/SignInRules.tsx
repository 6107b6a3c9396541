import { useState } from 'react'
import { Link } from 'react-router'
import type { SettingsView } from '#contract/settings-views.ts'
import { TextField } from '../../ui/TextField.tsx'
import { Tick } from '../../ui/Tick.tsx'
import { Setting } from './Setting.tsx'

/** Whoever holds one of the roles comes in with a second step only. */
export function SignInRules({ settings }: { readonly settings: SettingsView }) {
  const { secondFactorFor, roles } = settings
  const [next, setNext] = useState<readonly string[]>(secondFactorFor)
  const isChanged = [...next].sort().join() !== [...secondFactorFor].sort().join()
  const shut = roles.filter(role => next.includes(role.id)).flatMap(role => role.without)
  const people = [...new Map(shut.map(person => [person.id, person.name])).values()]
  const names = roles.filter(role => secondFactorFor.includes(role.id)).map(role => role.name)
  return (
    <>
      <Setting
        title="A second step at sign-in"
        does="Holders of these roles open the workspace only once they have set up a code from an app. Until then they see nothing but the way to do so."
        now={names.length === 0 ? 'Nobody is asked for it.' : <strong>{names.join(', ')}</strong>}
        edit={isChanged ? { secondFactorFor: [...next] } : undefined}
        act={next.length === 0 ? 'Ask nobody for it' : 'Ask for it from now on'}
        onLeave={() => setNext(secondFactorFor)}
      >
        <fieldset className="grid gap-1.5">
          <legend className="label-line">Asked of</legend>
          {roles.map(role => (
            <Tick
              key={role.id}
              isOn={next.includes(role.id)}
              onTick={isOn => setNext(isOn ? [...next, role.id] : next.filter(each => each !== role.id))}
            >
              {role.name}{' '}
              <span className="quiet">
                {role.people === 1 ? '1 person' : `${role.people} people`}, {role.without.length} without a
                second step
              </span>
            </Tick>
          ))}
        </fieldset>
        {isChanged && (
          <p className={`text-sm ${people.length > 0 ? 'text-warning' : ''}`}>
            {people.length === 0
              ? 'Everybody whom it concerns has one.'
              : `${people.join(', ')} ${people.length === 1 ? 'has' : 'have'} none yet, and will be asked to set it up before anything else.`}
          </p>
        )}
      </Setting>
      <Ends settings={settings} />
      <p className="border-t border-base-content py-4 text-sm">
        Passwords have at least 12 characters and are none that everybody would try first. Wrong tries are
        slowed, links in mails work once and die in time; that is so everywhere and not a setting. Your own
        second step is under{' '}
        <Link className="act" to="/account">
          Your account
        </Link>
        .
      </p>
    </>
  )
}

/** When a sign-in ends by itself. */
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
      title="When a sign-in ends"
      does="Then this workspace asks to sign in again. Counts at once, for sign-ins that stand too; a page that stays open counts as use."
      now={
        <strong>
          After {counted(signInDays, 'day')}, or {lengthWords(idleHours)} without use
        </strong>
      }
      edit={isGood && isChanged ? next : undefined}
      act="End sign-ins so"
      onLeave={leave}
    >
      <div className="flex flex-wrap gap-3">
        <TextField label="Days in all" type="number" min={1} max={90} value={days} onValue={setDays} />
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
  hours % 24 === 0 ? counted(hours / 24, 'day') : counted(hours, 'hour')

const counted = (count: number, what: string) => (count === 1 ? `1 ${what}` : `${count} ${what}s`)
