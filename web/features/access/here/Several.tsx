import { useState } from 'react'
import type { GrantsOverviewView } from '#contract/views/access.ts'
import { endOfDay } from '#contract/dates.ts'
import type { EditRequest } from '#contract/edit-requests.ts'
import { levelActions } from '#core/levels/level.ts'
import { useGrantsQuery } from '../../../api/access.ts'
import { useDecision } from '../../../api/use-decision.ts'
import { counted, placesWords } from '#core/words/english.ts'
import { type Receiver, useReceivers } from '../../../api/use-receivers.ts'
import { useHere } from '../../../api/use-here.ts'
import { useAppDispatch } from '../../../store/store.ts'
import { startPicking } from '../../../store/view.ts'
import { Combobox } from '../../../ui/Combobox.tsx'
import { Decision } from '../../../ui/Decision.tsx'
import { type Given, LevelChoice, nameOfGiven } from '../../../ui/LevelChoice.tsx'
import { DayField } from '../../../ui/DayField.tsx'
import { groupsOf } from './entries.ts'
import { actionsOf, isWithin, type Row } from '../many/many.ts'
import { ManyGrants } from '../many/ManyGrants.tsx'

/** Access at several places that are picked: who is given what at how many of them, changed in one change set. */
export function Several({ places }: { readonly places: readonly string[] }) {
  const { slug } = useHere()
  const dispatch = useAppDispatch()
  const { currentData: given } = useGrantsQuery({ slug, places: places.join(',') })
  return (
    <>
      <div className="mb-1 flex items-baseline justify-between">
        <h2 className="text-lg font-bold">{counted(places.length, 'place', 'places')} selected</h2>
        <button type="button" className="btn-inline text-sm" onClick={() => dispatch(startPicking(false))}>
          Cancel selection
        </button>
      </div>
      {given === undefined ? <p className="quiet">Loading …</p> : <Known given={given} />}
    </>
  )
}

function Known({ given }: { readonly given: GrantsOverviewView }) {
  const { places, others, grants } = given
  if (places.length === 0) return <p>You share none of these places.</p>
  return (
    <>
      <p className="quiet mb-2 text-sm">
        Grants on these places, without inherited ones.
        {others > 0 && ` You do not share ${others} of them. They are left out.`}
      </p>
      <OpenAll given={given} />
      <div className="mt-3">
        {grants.length === 0 && <p className="quiet">No grants on any of them.</p>}
        <ManyGrants label="Grants on these places" rows={rowsOf(given)} />
      </div>
    </>
  )
}

/** One row a team or person, for all of the places. */
const rowsOf = ({ grants, places }: GrantsOverviewView): Row[] =>
  groupsOf(grants.map(grant => ({ ...grant, isHere: true })))
    .flatMap(group => group.entries)
    .map(({ principal, name }) => {
      const theirs = grants.filter(grant => grant.principal === principal)
      const at = new Set(theirs.map(grant => grant.place.id)).size
      const note = at === places.length ? 'on all of them' : `on ${at} of ${places.length}`
      return { key: principal, title: name, note, grants: theirs, isFixed: false }
    })

function OpenAll({ given }: { readonly given: GrantsOverviewView }) {
  const { slug } = useHere()
  const { receivers, noteOf } = useReceivers(slug)
  const [receiver, setReceiver] = useState<Receiver>()
  if (receiver !== undefined)
    return <Opening given={given} receiver={receiver} onDone={() => setReceiver(undefined)} />
  return (
    <Combobox
      label="Share all of them"
      placeholder="Share all with a person or team"
      options={receivers.map(each => ({ value: each.principal, name: each.name, note: noteOf(each) }))}
      onChoose={({ value }) => setReceiver(receivers.find(each => each.principal === value))}
    />
  )
}

interface OpeningProps {
  readonly given: GrantsOverviewView
  readonly receiver: Receiver
  readonly onDone: () => void
}

function Opening({ given, receiver, onDone }: OpeningProps) {
  const { timeZone, ownLevels: own } = useHere().workspace
  const [gives, setGives] = useState<Given>(levelActions('Reader'))
  const [through, setThrough] = useState('')
  const places = given.places.filter(each => isWithin(actionsOf(gives, own), each.actions))
  const atMost = given.places.reduce((held, each) => held | each.actions, 0)
  const edits: EditRequest[] = places.map(({ id }) => ({
    kind: 'grant.add',
    node: id,
    principal: receiver.principal,
    gives,
    from: null,
    until: through === '' ? null : endOfDay(through, timeZone),
  }))
  const level = nameOfGiven(gives, own)
  const where = placesWords(places.length)
  const decision = useDecision(edits, `${receiver.name} now has ${level} on ${where}.`, onDone)
  return (
    <Decision label={`Give ${level} on ${where}`} onLeave={onDone} {...decision}>
      <p>
        Share <strong>{where}</strong> with <strong>{receiver.name}</strong>
      </p>
      <LevelChoice label="Level" value={gives} own={own} atMost={atMost} onChange={setGives} />
      <DayField label="Ends after" value={through} onValue={setThrough} />
    </Decision>
  )
}
