import { useState } from 'react'
import { dayOf, endOfDay } from '#contract/dates.ts'
import type { EditRequest } from '#contract/edit-requests.ts'
import type { PersonView } from '#contract/views/people.ts'
import { usePeopleNamesQuery } from '../../../api/api.ts'
import { useDecision } from '../../../api/use-decision.ts'
import { useHere } from '../../../api/use-here.ts'
import { Choice } from '../../../ui/Choice.tsx'
import { Decision } from '../../../ui/Decision.tsx'
import { Offboarding } from './Offboarding.tsx'
import { DayField } from '../../../ui/DayField.tsx'

type Act = 'suspend' | 'end' | 'convert' | 'remove'

/** Whether and until when somebody is let in, and as what. */
export function PersonStatus({ person }: { readonly person: PersonView }) {
  const [act, setAct] = useState<Act>()
  const offered = offersFor(person)
  if (offered.length === 0) return null
  const Chosen = act === undefined ? undefined : deciding[act]
  return (
    <section aria-label="Status" className="mt-5 border-t border-base-content pt-3">
      {person.status === 'suspended' && (
        <p className="mb-2 text-error">Suspended: no access to anything. Roles, teams and grants are kept.</p>
      )}
      <div className="flex flex-wrap gap-2">
        {offered.map(each => (
          <button
            key={each}
            type="button"
            className="btn-plain"
            aria-expanded={each === act}
            onClick={() => setAct(each === act ? undefined : each)}
          >
            {wordFor(each, person)}
          </button>
        ))}
      </div>
      {Chosen !== undefined && <Chosen person={person} onDone={() => setAct(undefined)} />}
    </section>
  )
}

const offersFor = ({ managed }: PersonView): Act[] => {
  const may = managed?.may ?? []
  return [
    ...(may.includes('suspend') ? (['suspend', 'end'] as const) : []),
    ...(may.includes('convert') ? (['convert'] as const) : []),
    ...(may.includes('remove') ? (['remove'] as const) : []),
  ]
}

function wordFor(act: Act, { kind, status, managed }: PersonView): string {
  switch (act) {
    case 'suspend':
      return status === 'suspended' ? 'Reactivate …' : 'Suspend …'
    case 'end':
      return managed?.until == null ? 'Set end …' : 'Change end …'
    case 'convert':
      return kind === 'member' ? 'Turn into a guest …' : 'Turn into a member …'
    case 'remove':
      return 'Remove …'
  }
}

interface ActProps {
  readonly person: PersonView
  readonly onDone: () => void
}

/** Suspending ends all access at once and keeps the rest; bringing back gives it again. */
function Suspend({ person: { id, name, status }, onDone }: ActProps) {
  const isSuspended = status === 'suspended'
  const edit = { kind: isSuspended ? 'person.reactivate' : 'person.suspend', person: id } as const
  const confirmation = isSuspended ? `${name} is reactivated.` : `${name} is suspended.`
  const decision = useDecision([edit], confirmation, onDone)
  return (
    <Decision
      label={isSuspended ? `Reactivate ${name}` : `Suspend ${name}`}
      isDrastic={!isSuspended}
      onLeave={onDone}
      {...decision}
    />
  )
}

function End({ person: { id, name, managed }, onDone }: ActProps) {
  const until = managed?.until ?? null
  const { timeZone } = useHere().workspace
  const [through, setThrough] = useState(until === null ? '' : dayOf(until - 1, timeZone))
  const edit: EditRequest = {
    kind: 'person.end',
    person: id,
    until: through === '' ? null : endOfDay(through, timeZone),
  }
  const confirmation =
    through === '' ? `The access of ${name} has no end.` : `The end of the access of ${name} is set.`
  const decision = useDecision([edit], confirmation, onDone)
  return (
    <Decision label={through === '' ? 'Remove end' : 'Set end'} onLeave={onDone} {...decision}>
      <DayField isQuiet label={`Ends after, ${name}`} value={through} onValue={setThrough} />
    </Decision>
  )
}

function Convert({ person: { id, name, kind }, onDone }: ActProps) {
  const { slug } = useHere()
  const { data: people = [] } = usePeopleNamesQuery(slug)
  const [taker, setTaker] = useState('')
  const as = kind === 'member' ? 'guest' : 'member'
  const edit: EditRequest = { kind: 'person.convert', person: id, as, taker: taker === '' ? null : taker }
  const decision = useDecision([edit], `${name} is now a ${as}.`, onDone)
  const takers = people.filter(each => each.kind === 'member' && each.status === 'active' && each.id !== id)
  return (
    <Decision label={`Turn ${name} into a ${as}`} isDrastic={as === 'guest'} onLeave={onDone} {...decision}>
      {as === 'guest' ? (
        <Choice
          label="Private folder"
          value={taker}
          options={[
            { value: '', name: 'move to bin' },
            ...takers.map(({ id, name }) => ({ value: id, name: `give to ${name}` })),
          ]}
          onValue={setTaker}
        />
      ) : (
        <p className="text-sm">They get a private folder and the access of all members.</p>
      )}
    </Decision>
  )
}

const deciding = { suspend: Suspend, end: End, convert: Convert, remove: Offboarding }
