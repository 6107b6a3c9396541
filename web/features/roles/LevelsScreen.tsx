import { useState } from 'react'
import type { EditRequest } from '#contract/edit-requests.ts'
import type { OwnLevelView } from '#contract/views/workspace.ts'
import {
  type Action,
  type ActionSet,
  actions,
  allActions,
  has,
  noActions,
  union,
  without,
} from '#core/levels/action.ts'
import { builtInLevels, levelActions } from '#core/levels/level.ts'
import { listed } from '#core/words/english.ts'
import { useDecision } from '../../api/use-decision.ts'
import { useHere } from '../../api/use-here.ts'
import { Decision } from '../../ui/Decision.tsx'
import { Drafted } from '../../ui/Drafted.tsx'
import { Gauge } from '../../ui/Gauge.tsx'
import { TextField } from '../../ui/TextField.tsx'
import { Tick } from '../../ui/Tick.tsx'
import { actionWords } from './action-words.ts'
import { RolesHead } from './RolesHead.tsx'

/** The seven levels of access and the workspace's own: what each lets one do, and making and changing one's own. */
export function LevelsScreen() {
  const { workspace } = useHere()
  const [open, setOpen] = useState<string>()
  const mayEdit = workspace.me.privileges.includes('edit levels')
  const builtIn = builtInLevels.map(name => ({ name, actions: levelActions(name) }))
  return (
    <main className="min-h-0 overflow-y-auto px-4 pt-3 pb-6">
      <RolesHead />
      <div className="grid max-w-5xl gap-x-10 gap-y-6 lg:grid-cols-2">
        <section aria-label="Own levels">
          <h2 className="mb-1 text-lg font-bold">Own levels</h2>
          <p className="quiet mb-2 text-sm">
            An own level is a set of actions with a name. It is given like a built-in level. Changing it
            changes the access of everybody who has it, on all places.
          </p>
          {workspace.ownLevels.length === 0 && <p className="mb-2">No own levels yet.</p>}
          <ul>
            {workspace.ownLevels.map(level => (
              <li key={level.id} className="border-t border-base-300 py-2">
                <Row name={level.name} actions={level.actions} note={level.note} />
                {mayEdit && open !== level.id && (
                  <button
                    type="button"
                    className="btn-inline ml-6 text-sm"
                    aria-label={`Change ${level.name}`}
                    onClick={() => setOpen(level.id)}
                  >
                    Change …
                  </button>
                )}
                {open === level.id && <Change level={level} onDone={() => setOpen(undefined)} />}
              </li>
            ))}
          </ul>
          {mayEdit &&
            (open === 'new' ? (
              <Create onDone={() => setOpen(undefined)} />
            ) : (
              <button type="button" className="btn-main mt-2" onClick={() => setOpen('new')}>
                Create level …
              </button>
            ))}
        </section>
        <section aria-label="Built-in levels">
          <h2 className="mb-1 text-lg font-bold">Built-in levels</h2>
          <p className="quiet mb-2 text-sm">Each level includes all lower levels.</p>
          <ul>
            {builtIn.map((level, index) => (
              <li key={level.name} className="border-t border-base-300 py-2">
                <Row {...level} note="" before={builtIn[index - 1]?.actions ?? 0} />
              </li>
            ))}
          </ul>
        </section>
      </div>
    </main>
  )
}

interface RowProps {
  readonly name: string
  readonly actions: number
  readonly note: string
  /** What is not said again. */
  readonly before?: number
}

function Row({ name, actions: held, note, before = 0 }: RowProps) {
  const adds = allActions.filter(each => has(held as ActionSet, each) && !has(before as ActionSet, each))
  return (
    <div className="flex items-start gap-3">
      <Gauge actions={held} />
      <span>
        <strong>{name}</strong>
        {note !== '' && <span className="quiet"> · {note}</span>}
        <span className="block text-sm">
          {before === 0 ? '' : 'and '}
          {listed(adds.map(each => actionWords[each]))}
        </span>
      </span>
    </div>
  )
}

/** What an action cannot be without. */
const needsOf = (action: Action): Action[] =>
  allActions.filter(each => each !== action && has(actions(action), each))

interface Draft {
  readonly name: string
  readonly note: string
  readonly held: ActionSet
}

interface FieldsProps {
  readonly draft: Draft
  readonly onDraft: (draft: Draft) => void
}

/** A name, a note, and actions to tick: what one needs comes along, and what needs one goes with it. */
function Fields({ draft, onDraft }: FieldsProps) {
  const [status, setStatus] = useState('')
  const { held } = draft
  const tick = (action: Action, isOn: boolean) => {
    const next = isOn ? union(held, actions(action)) : without(held, action)
    const along = allActions.filter(each => each !== action && has(next, each) !== has(held, each))
    const words = listed(along.map(each => actionWords[each]))
    setStatus(
      words === ''
        ? ''
        : isOn
          ? `Also added, because it is needed: ${words}.`
          : `Also removed, because it needs that: ${words}.`,
    )
    onDraft({ ...draft, held: next })
  }
  return (
    <>
      <TextField
        label="Name"
        maxLength={200}
        value={draft.name}
        onValue={name => onDraft({ ...draft, name })}
      />
      <TextField
        label="Description"
        maxLength={2000}
        value={draft.note}
        onValue={note => onDraft({ ...draft, note })}
      />
      <fieldset>
        <legend className="label-line">Allows to</legend>
        <div className="flex gap-4">
          <Gauge actions={held} />
          <div className="grid grow gap-1">
            {allActions.map(each => (
              <Tick key={each} isOn={has(held, each)} onTick={isOn => tick(each, isOn)}>
                <span>{actionWords[each]}</span>
                {needsOf(each).length > 0 && (
                  <span className="quiet text-sm">
                    {' '}
                    · needs to{' '}
                    {needsOf(each)
                      .map(need => actionWords[need])
                      .join(', ')}
                  </span>
                )}
              </Tick>
            ))}
          </div>
        </div>
        <p role="status" className="mt-1 text-sm">
          {status}
        </p>
      </fieldset>
    </>
  )
}

function Create({ onDone }: { readonly onDone: () => void }) {
  const [draft, setDraft] = useState<Draft>({ name: '', note: '', held: noActions })
  const isReady = draft.name.trim() !== '' && draft.held !== noActions
  const edit: EditRequest = {
    kind: 'level.create',
    level: 'new:level',
    name: draft.name.trim(),
    note: draft.note.trim(),
    actions: draft.held,
  }
  return (
    <Drafted
      onLeave={onDone}
      decision={
        isReady ? (
          <Deciding
            edit={edit}
            label="Create level"
            confirmation={`The level ${edit.name} is created.`}
            onDone={onDone}
          />
        ) : undefined
      }
    >
      <Fields draft={draft} onDraft={setDraft} />
    </Drafted>
  )
}

function Change({ level, onDone }: { readonly level: OwnLevelView; readonly onDone: () => void }) {
  const [draft, setDraft] = useState<Draft>({
    name: level.name,
    note: level.note,
    held: level.actions as ActionSet,
  })
  const [isDeleting, setDeleting] = useState(false)
  const changed = {
    ...(draft.name.trim() === level.name ? {} : { name: draft.name.trim() }),
    ...(draft.note.trim() === level.note ? {} : { note: draft.note.trim() }),
    ...(draft.held === level.actions ? {} : { actions: draft.held as number }),
  }
  const isReady = Object.keys(changed).length > 0 && draft.name.trim() !== '' && draft.held !== noActions
  if (isDeleting)
    return (
      <Deciding
        edit={{ kind: 'level.delete', level: level.id }}
        label={`Delete ${level.name}`}
        confirmation={`The level ${level.name} is deleted.`}
        onDone={onDone}
      />
    )
  return (
    <Drafted
      onLeave={onDone}
      decision={
        isReady ? (
          <Deciding
            edit={{ kind: 'level.change', level: level.id, ...changed }}
            label="Change level on all places"
            confirmation={`The level ${draft.name.trim()} is changed on all places.`}
            onDone={onDone}
          />
        ) : undefined
      }
    >
      <Fields draft={draft} onDraft={setDraft} />
      <button
        type="button"
        className="btn-inline justify-self-start text-sm text-error"
        onClick={() => setDeleting(true)}
      >
        Delete level …
      </button>
    </Drafted>
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
  return <Decision label={label} isDrastic={edit.kind === 'level.delete'} onLeave={onDone} {...decision} />
}
