import { useState } from 'react'
import { Link } from 'react-router'
import type { EditRequest } from '#contract/edit-requests.ts'
import type { SeatPart, SeatsView } from '#contract/views/roles.ts'
import { counted } from '#core/words/english.ts'
import { useSeatsQuery } from '../../api/roles.ts'
import { useDecision } from '../../api/use-decision.ts'
import { useHere } from '../../api/use-here.ts'
import { Day } from '../../ui/dates.tsx'
import { Decision } from '../../ui/Decision.tsx'
import { Drafted } from '../../ui/Drafted.tsx'
import { FilterWords } from '../../ui/FilterWords.tsx'
import { later, LaterScreen } from '../../ui/later.tsx'
import { TextField } from '../../ui/TextField.tsx'
import { costWords } from './cost.ts'

const chart = later(async () => (await import('./SeatChart.tsx')).SeatChart)

/** How many seats there are, by whom they are taken, what they cost, and how that came. */
export function Seats() {
  const { slug } = useHere()
  const { data: view } = useSeatsQuery(slug)
  if (view === undefined) return null
  return (
    <>
      <Taken view={view} />
      <ByWhom view={view} />
      <Plan view={view} />
      <Suspended view={view} />
      <section aria-label="Over time" className="border-t border-base-content py-4">
        <h3 className="mb-2 font-bold">Over time</h3>
        <LaterScreen
          part={chart}
          given={{ past: view.past }}
          waiting={<p className="quiet h-48">Drawing …</p>}
        />
      </section>
    </>
  )
}

interface Props {
  readonly view: SeatsView
}

const seatsWord = (count: number) => counted(count, 'seat', 'seats')

function Taken({ view: { bought, taken, parts } }: Props) {
  if (bought === null)
    return (
      <p className="mb-4">
        <strong>{seatsWord(taken)} taken</strong>. The number of seats is not limited.
      </p>
    )
  const left = bought - taken
  return (
    <div className="mb-4">
      <p>
        <strong>
          {taken} of {seatsWord(bought)} taken
        </strong>
        {left > 0 && `, ${left} free`}
      </p>
      <div aria-hidden className="my-1.5 flex h-4 border border-base-content/60">
        {(Object.keys(viewingSessions) as Drawn[]).map(part => (
          <span
            key={part}
            className={viewingSessions[part]}
            style={{ width: `${(100 * parts[part]) / Math.max(bought, taken)}%` }}
          />
        ))}
      </div>
      {left <= 1 && (
        <p className="border-l-4 border-warning pl-3">
          {left === 1
            ? 'One seat is left. After that no more members can be invited.'
            : 'No seat is left. Members cannot be invited, guests still can.'}
        </p>
      )}
    </div>
  )
}

/** How the parts of the bar are drawn; a sample stands beside the words of each. */
const viewingSessions = {
  here: 'bg-primary',
  suspended: 'bg-base-content/50',
  invited: 'bg-warning',
} as const
type Drawn = keyof typeof viewingSessions
const lookOf = (part: SeatPart): string => (part in viewingSessions ? viewingSessions[part as Drawn] : '')

const partWords: readonly { readonly part: SeatPart; readonly words: string; readonly to: string }[] = [
  { part: 'here', words: 'active members', to: '?as=member&status=active&only=takes+a+seat' },
  { part: 'invited', words: 'invited members', to: '?as=member&status=invited&only=takes+a+seat' },
  { part: 'suspended', words: 'suspended people', to: '?as=member&status=suspended' },
  { part: 'suspended without', words: 'suspended, without a seat', to: '?as=member&status=suspended' },
  { part: 'free', words: 'members with roles that use no seat', to: '?as=member' },
  { part: 'guests', words: 'guests, who use no seat', to: '?as=guest' },
]

function ByWhom({ view: { parts } }: Props) {
  const { slug, workspace } = useHere()
  return (
    <table className="sheet mb-4">
      <tbody>
        {partWords
          .filter(({ part }) => parts[part] > 0)
          .map(({ part, words, to }) => (
            <tr key={part}>
              <td className="w-4 pr-0">
                <span aria-hidden className={`block size-3 ${lookOf(part)}`} />
              </td>
              <td className="w-12 text-right">{parts[part]}</td>
              <td>
                {workspace.managesPeople ? (
                  <Link className="link" to={`/at/${slug}/people${to}`}>
                    {words}
                  </Link>
                ) : (
                  words
                )}
              </td>
            </tr>
          ))}
      </tbody>
    </table>
  )
}

function Plan({ view }: Props) {
  const { workspace } = useHere()
  const { bought, next, centsPerMonth, mayChange } = view
  const [isOpen, setOpen] = useState(false)
  return (
    <section aria-label="Plan" className="border-t border-base-content py-4">
      <div className="flex items-start justify-between gap-6">
        <div>
          <h3 className="font-bold">Plan</h3>
          <p>
            {bought === null
              ? 'The number of seats is not limited.'
              : `${seatsWord(bought)}: ${costWords(bought, centsPerMonth)}.`}
          </p>
          {next !== null && (
            <p>
              From <Day at={next.from} timeZone={workspace.timeZone} /> on{' '}
              {next.seats === null
                ? 'no limit'
                : `${seatsWord(next.seats)}: ${costWords(next.seats, centsPerMonth)}`}
              .
            </p>
          )}
          <p className="quiet text-sm">The plan is a simulation. Nothing is paid.</p>
        </div>
        {mayChange && !isOpen && (
          <button type="button" className="btn-plain shrink-0" onClick={() => setOpen(true)}>
            Change number of seats …
          </button>
        )}
      </div>
      {isOpen && <ChangePlan view={view} onDone={() => setOpen(false)} />}
    </section>
  )
}

/** Whether that many would be another number than what there is or is planned. */
const isOther = ({ bought, next }: SeatsView, seats: number) => seats !== bought || next !== null

const isSeats = (count: number) => Number.isInteger(count) && count >= 1 && count <= 1_000_000

const whens = ['from the next period', 'at once'] as const
type When = (typeof whens)[number]
const sent = { 'from the next period': 'next period', 'at once': 'now' } as const

function ChangePlan({ view, onDone }: Props & { readonly onDone: () => void }) {
  const [typed, setTyped] = useState(String(view.next?.seats ?? view.bought ?? view.taken))
  const [wanted, setWanted] = useState<When>('from the next period')
  const seats = Number(typed)
  const isNumber = isSeats(seats)
  // What is paid for until then stays: fewer begin with the next period.
  const offered = view.bought !== null && seats < view.bought ? whens.slice(0, 1) : whens
  const when = offered.find(each => each === wanted) ?? whens[0]
  const words = `${seatsWord(seats)} ${when}`
  const edit: EditRequest = { kind: 'seats.change', seats, when: sent[when] }
  return (
    <Drafted
      onLeave={onDone}
      decision={
        isNumber && isOther(view, seats) ? (
          <Deciding edit={edit} label={`Change to ${words}`} confirmation={`${words}.`} onDone={onDone} />
        ) : null
      }
    >
      <TextField
        label="Seats"
        type="number"
        min={1}
        max={1_000_000}
        value={typed}
        hint={isNumber ? `${costWords(seats, view.centsPerMonth)}.` : 'A whole number, at least 1.'}
        onValue={setTyped}
      />
      <FilterWords label="When" words={offered} chosen={when} onChoose={setWanted} />
      <NextPeriod view={view} seats={isNumber ? seats : view.taken} />
    </Drafted>
  )
}

/** When it begins, and what becomes of those who have a seat then. */
function NextPeriod({ view, seats }: Props & { readonly seats: number }) {
  const { workspace } = useHere()
  return (
    <p className="quiet text-sm">
      The next period starts on <Day at={view.nextPeriod} timeZone={workspace.timeZone} />.
      {seats < view.taken &&
        ` ${seatsWord(view.taken)} are used now. Nobody loses access, but no members can be invited until enough seats are free.`}
    </p>
  )
}

interface DecidingProps {
  readonly edit: EditRequest
  readonly label: string
  readonly confirmation: string
  readonly onDone: () => void
}

function Deciding({ edit, label, confirmation, onDone }: DecidingProps) {
  const decision = useDecision([edit], confirmation, onDone)
  return <Decision label={label} onLeave={onDone} {...decision} />
}

function Suspended({ view: { suspendedHoldSeats, mayChange } }: Props) {
  const [isOpen, setOpen] = useState(false)
  const edit: EditRequest = { kind: 'seats.change', suspendedHoldSeats: !suspendedHoldSeats }
  const label = suspendedHoldSeats
    ? 'Free the seats of suspended people'
    : 'Keep the seats of suspended people'
  return (
    <section aria-label="Suspended people" className="border-t border-base-content py-4">
      <div className="flex items-start justify-between gap-6">
        <div>
          <h3 className="font-bold">Suspended people</h3>
          <p>
            {suspendedHoldSeats
              ? 'keep their seats, also when they are reactivated.'
              : 'free their seats. Reactivating them needs a seat again.'}{' '}
            <span className="quiet">The seat of a removed person is free at once.</span>
          </p>
        </div>
        {mayChange && !isOpen && (
          <button type="button" className="btn-plain shrink-0" onClick={() => setOpen(true)}>
            Change …
          </button>
        )}
      </div>
      {isOpen && <Deciding edit={edit} label={label} confirmation="Changed." onDone={() => setOpen(false)} />}
    </section>
  )
}
