import { useState } from 'react'
import type { Problem } from '#contract/views/problem.ts'
import type { SavedView } from '#contract/views/boards.ts'
import { plainView } from '#core/boards/view.ts'
import { useDeleteOwnViewMutation, useSaveOwnViewMutation } from '../../api/boards.ts'
import { useChange } from '../../api/use-change.ts'
import { say } from '../../store/message.ts'
import { useAppDispatch } from '../../store/store.ts'
import { MenuAct, MenuRule } from '../../ui/Menu.tsx'
import { onSubmit } from '../../ui/on-submit.ts'
import { ProblemNote } from '../../ui/ProblemNote.tsx'
import { useOpenBoard } from './board-context.ts'

interface ViewsProps {
  /** Begins to save what is shown; nothing while that is done. */
  readonly onSave: (() => void) | undefined
}

/** The views of the board and one's own, by their names. */
export function SavedViews({ onSave }: ViewsProps) {
  const { view, info } = useOpenBoard()
  return (
    <div role="group" aria-label="Saved views" className="flex flex-wrap gap-x-3.5">
      <SavedWord
        name="All"
        isOpen={view.saved === null && isPlain(view.parameters)}
        onOpen={() => view.open(plainView, null)}
      />
      {[...info.views, ...info.ownViews].map(each => (
        <SavedWord
          key={each.id}
          name={each.name}
          isOpen={view.saved === each.id}
          onOpen={() => view.open(each.state, each.id)}
        />
      ))}
      {onSave !== undefined && (
        <button type="button" className="quiet cursor-pointer text-sm hover:underline" onClick={onSave}>
          Save as a view …
        </button>
      )}
    </div>
  )
}

const isPlain = (parameters: Readonly<Record<string, string>>): boolean =>
  Object.keys(parameters).every(name => name === 'columns')

interface WordProps {
  readonly name: string
  readonly isOpen: boolean
  readonly onOpen: () => void
}

const SavedWord = ({ name, isOpen, onOpen }: WordProps) => (
  <button
    type="button"
    aria-pressed={isOpen}
    className={`cursor-pointer ${isOpen ? 'font-bold' : 'hover:underline'}`}
    onClick={onOpen}
  >
    {name}
  </button>
)

/** What is given a name: what is shown, or a view that has one already. */
export interface Naming {
  readonly named?: SavedView
}

interface NameProps extends Naming {
  readonly onDone: () => void
}

/** A view of one's own, or of all who see the board. */
export function NameView({ named, onDone }: NameProps) {
  const { info, view, mayArrange } = useOpenBoard()
  const [name, setName] = useState(named?.name ?? '')
  const [isShared, setShared] = useState(info.views.some(each => each.id === named?.id))
  const [problem, setProblem] = useState<Problem>()
  const { save, isBusy } = useSaveView()
  const submit = async () => {
    const { id, problem } = await save({
      id: named?.id ?? null,
      name: name.trim(),
      state: named?.state ?? view.view,
      isShared,
    })
    setProblem(problem)
    if (id === undefined) return
    if (named === undefined) view.open(view.view, id)
    onDone()
  }
  return (
    <form className="flex w-full flex-wrap items-center gap-2 py-1" onSubmit={onSubmit(submit)}>
      <input
        className="field max-w-60"
        aria-label="Name of the view"
        placeholder="Name of the view"
        autoFocus
        maxLength={200}
        value={name}
        onChange={event => setName(event.target.value)}
      />
      {mayArrange && named === undefined && (
        <label className="flex items-center gap-1.5 text-sm">
          <input
            type="checkbox"
            className="checkbox checkbox-xs border-base-content/60"
            checked={isShared}
            onChange={event => setShared(event.target.checked)}
          />
          for all who see the board
        </label>
      )}
      <button className="btn-main" disabled={name.trim() === '' || isBusy}>
        {named === undefined ? 'Save view' : 'Rename view'}
      </button>
      <button type="button" className="btn-plain" onClick={onDone}>
        Cancel
      </button>
      <ProblemNote problem={problem} />
    </form>
  )
}

interface Saving extends Pick<SavedView, 'name' | 'state'> {
  /** The view that is written over; a new one if none. */
  readonly id: string | null
  readonly isShared: boolean
}

interface Saved {
  readonly id?: string | undefined
  readonly problem?: Problem | undefined
}

/** Saves a view for oneself or for all; told is its id, or why it was refused. */
function useSaveView() {
  const { slug, node, info } = useOpenBoard()
  const [saveOwn, { isLoading }] = useSaveOwnViewMutation()
  const { apply, isBusy } = useChange(slug)
  const save = async ({ id, name, state, isShared }: Saving): Promise<Saved> => {
    if (!isShared) {
      const { data, error } = await saveOwn({ slug, id: node.id, view: id, name, state })
      return { id: data?.id, problem: error as Problem | undefined }
    }
    const edit =
      id === null
        ? ({ kind: 'view.create', view: 'new:view', board: node.id, order: info.views.length + 1 } as const)
        : ({ kind: 'view.change', view: id } as const)
    const { applied, problem } = await apply([{ ...edit, name, state }], `The view ${name} is saved for all.`)
    return applied === undefined ? { problem } : { id: id ?? applied.made['new:view'] }
  }
  return { save, isBusy: isBusy || isLoading }
}

interface ActsProps {
  readonly onRename: (view: SavedView) => void
}

/** What is done with the view that is open, where it is one's own or one may arrange. */
export function SavedViewActs({ onRename }: ActsProps) {
  const { slug, node, view, info, mayArrange } = useOpenBoard()
  const dispatch = useAppDispatch()
  const [dropOwn] = useDeleteOwnViewMutation()
  const { save } = useSaveView()
  const { apply } = useChange(slug)
  const shared = mayArrange ? info.views.find(each => each.id === view.saved) : undefined
  const open = shared ?? info.ownViews.find(each => each.id === view.saved)
  if (open === undefined) return null
  const { id, name } = open
  const isShared = shared !== undefined
  // The menu is gone by then: what was refused is said below.
  const refused = (problem: Problem) => dispatch(say({ text: `${problem.title} ${problem.detail}` }))
  const keep = async () => {
    const { problem } = await save({ id, name, state: view.view, isShared })
    if (problem !== undefined) refused(problem)
    else if (!isShared) dispatch(say({ text: `The view ${name} is saved.` }))
  }
  const drop = async () => {
    const { problem } = isShared
      ? await apply([{ kind: 'view.delete', view: id }], `The view ${name} is deleted.`)
      : await dropOwn({ slug, id: node.id, view: id }).then(({ error }) => ({
          problem: error as Problem | undefined,
        }))
    if (problem === undefined) view.open(plainView, null)
    else refused(problem)
  }
  return (
    <>
      <MenuRule />
      <MenuAct onAct={() => void keep()}>Save the view {name} as shown</MenuAct>
      <MenuAct onAct={() => onRename(open)}>Rename the view {name} …</MenuAct>
      <MenuAct isDrastic onAct={() => void drop()}>
        Delete the view {name}
      </MenuAct>
    </>
  )
}
