import { useState } from 'react'
import type { EditRequest } from '#contract/edit-requests.ts'
import type { PathView } from '#contract/views/names.ts'
import { nounFor, placesWords } from '#core/words/english.ts'
import { useMoveTargetsQuery } from '../../api/access.ts'
import { zipOfPlacesAddress } from '../../api/files.ts'
import { useDecision } from '../../api/use-decision.ts'
import { useHere } from '../../api/use-here.ts'
import { useAppDispatch, useAppSelector } from '../../store/store.ts'
import { startPicking } from '../../store/view.ts'
import { Combobox } from '../../ui/Combobox.tsx'
import { Decision } from '../../ui/Decision.tsx'
import { OpenedBox } from '../../ui/OpenedBox.tsx'

type Act = 'move' | 'copy' | 'archive' | 'bin'
const acts: Readonly<Record<Act, string>> = {
  move: 'Move …',
  copy: 'Duplicate …',
  archive: 'Archive …',
  bin: 'Move to bin …',
}

/** What can be done with all places that are picked, each with what it does to whom. */
export function Picked() {
  const { slug } = useHere()
  const dispatch = useAppDispatch()
  const picked = useAppSelector(state => state.view.picked)
  const [act, setAct] = useState<Act>()
  if (picked.length === 0) return null
  const leave = () => setAct(undefined)
  const done = () => {
    leave()
    dispatch(startPicking(false))
  }
  return (
    <section aria-label="Selected places" className="mb-3 border-l-4 border-primary bg-base-200 px-3 py-2">
      <div className="flex flex-wrap items-center gap-1.5 text-sm">
        <strong className="mr-2">{placesWords(picked.length)} selected</strong>
        {(Object.keys(acts) as Act[]).map(each => (
          <button
            key={each}
            type="button"
            className="btn-inline"
            aria-expanded={each === act}
            onClick={() => setAct(each === act ? undefined : each)}
          >
            {acts[each]}
          </button>
        ))}
        <a className="btn-inline" download href={zipOfPlacesAddress(slug, picked)}>
          Download as ZIP
        </a>
        <button
          type="button"
          className="quiet ml-auto grid size-6 cursor-pointer place-items-center hover:text-base-content"
          aria-label="End selection"
          onClick={done}
        >
          ×
        </button>
      </div>
      {(act === 'move' || act === 'copy') && (
        <Elsewhere key={act} places={picked} act={act} onLeave={leave} onDone={done} />
      )}
      {act === 'archive' && <Archive places={picked} onLeave={leave} onDone={done} />}
      {act === 'bin' && <Bin places={picked} onLeave={leave} onDone={done} />}
    </section>
  )
}

interface Props {
  readonly places: readonly string[]
  readonly onLeave: () => void
  readonly onDone: () => void
}

interface ElsewhereProps extends Props {
  readonly act: 'move' | 'copy'
}

function Elsewhere({ places, act, onLeave, onDone }: ElsewhereProps) {
  const { slug } = useHere()
  const [typed, setTyped] = useState('')
  const [goal, setGoal] = useState<PathView>()
  const { data: goals } = useMoveTargetsQuery(
    { slug, id: places[0] ?? '', find: typed },
    { skip: typed.trim() === '' },
  )
  const verb = act === 'move' ? 'Move' : 'Duplicate'
  return (
    <OpenedBox onLeave={onLeave}>
      <Combobox
        label={`${verb} ${placesWords(places.length)} to`}
        placeholder={goal === undefined ? `${verb} to` : `${goal.name}, or another place`}
        options={(goals ?? []).map(({ id, name, path }) => ({ value: id, name, note: path }))}
        onTyped={setTyped}
        nobody="No place found that you can add to"
        onChoose={({ value }) => setGoal(goals?.find(each => each.id === value))}
      />
      {goal !== undefined && (
        <Into key={goal.id} places={places} act={act} goal={goal} onLeave={onLeave} onDone={onDone} />
      )}
    </OpenedBox>
  )
}

function Into({ places, act, goal, onLeave, onDone }: ElsewhereProps & { readonly goal: PathView }) {
  const isMove = act === 'move'
  const edits = places.map((node): EditRequest =>
    isMove ? { kind: 'node.move', node, parent: goal.id } : { kind: 'node.duplicate', node, parent: goal.id },
  )
  const what = places.length === 1 ? 'is' : 'are'
  const confirmation = isMove
    ? `${placesWords(places.length)} ${what} now in ${goal.name}.`
    : `${placesWords(places.length)} ${what} duplicated to ${goal.name}.`
  const decision = useDecision(edits, confirmation, onDone)
  return (
    <Decision label={`${isMove ? 'Move' : 'Duplicate'} to ${goal.name}`} onLeave={onLeave} {...decision}>
      <p className="text-sm">
        {isMove
          ? 'Grants on what is moved go with it. Inherited grants do not.'
          : 'Limits and broken inheritance are copied. Grants are not, nor places that you may not copy.'}
      </p>
    </Decision>
  )
}

function Archive({ places, onLeave, onDone }: Props) {
  const edits = places.map((node): EditRequest => ({ kind: 'node.state', node, archived: true }))
  const decision = useDecision(
    edits,
    `${placesWords(places.length)} ${nounFor(places.length, 'is', 'are')} archived.`,
    onDone,
  )
  return (
    <Decision label={`Archive ${placesWords(places.length)}`} onLeave={onLeave} {...decision}>
      <p className="text-sm">Everybody who can read them now still can. Nobody can change them.</p>
    </Decision>
  )
}

function Bin({ places, onLeave, onDone }: Props) {
  const edits = places.map((node): EditRequest => ({ kind: 'node.state', node, binned: true }))
  const decision = useDecision(
    edits,
    `${placesWords(places.length)} ${nounFor(places.length, 'is', 'are')} now in the bin.`,
    onDone,
  )
  return (
    <Decision label={`Move ${placesWords(places.length)} to bin`} isDrastic onLeave={onLeave} {...decision}>
      <p className="text-sm">
        Nobody can open them there. People who can remove them can restore them for 30 days.
      </p>
    </Decision>
  )
}
