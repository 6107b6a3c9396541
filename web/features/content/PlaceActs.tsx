import { useState } from 'react'
import { useNavigate } from 'react-router'
import type { EditRequest } from '#contract/edit-requests.ts'
import type { NodeView } from '#contract/views/content.ts'
import type { PathView } from '#contract/views/names.ts'
import { type Action, type ActionSet, has } from '#core/levels/action.ts'
import { useMoveTargetsQuery } from '../../api/access.ts'
import { zipAddress } from '../../api/files.ts'
import { useDecision } from '../../api/use-decision.ts'
import { useHere } from '../../api/use-here.ts'
import { Combobox } from '../../ui/Combobox.tsx'
import { Day } from '../../ui/dates.tsx'
import { Decision } from '../../ui/Decision.tsx'
import { Menu, MenuAct, MenuDownload } from '../../ui/Menu.tsx'
import { OpenedBox } from '../../ui/OpenedBox.tsx'
import { DeleteForGood } from './DeleteForGood.tsx'
import { Duplicate } from './Duplicate.tsx'
import { Publish } from './Publish.tsx'

export type Act = 'rename' | 'move' | 'copy' | 'draft' | 'web' | 'archive' | 'bin' | 'delete'

interface Props {
  readonly node: NodeView
  readonly mayEdit: boolean
  readonly act: Act | undefined
  readonly onAct: (act: Act | undefined) => void
}

/** So many acts stand in the line of the name; the others, seldom needed, behind a button. */
const inLine = 3

/** Renaming, moving, copying, drafting, publishing, archiving and binning a place. */
export function PlaceActs({ node, mayEdit, act, onAct }: Props) {
  const { slug } = useHere()
  const offered = offersFor(node, mayEdit)
  const others = offered.length > inLine + 1 || takesZip(node) ? offered.slice(inLine) : []
  return (
    <div className="flex flex-wrap gap-1.5 text-sm">
      {offered.slice(0, offered.length - others.length).map(each => (
        <button
          key={each}
          type="button"
          className="btn-inline"
          aria-expanded={each === act}
          onClick={() => onAct(each === act ? undefined : each)}
        >
          {wordFor(each, node)}
        </button>
      ))}
      {(others.length > 0 || takesZip(node)) && (
        <Menu buttonClass="btn-inline text-sm" button="More">
          {takesZip(node) && (
            <MenuDownload href={zipAddress({ slug, id: node.id })}>Download as ZIP</MenuDownload>
          )}
          {others.map(each => (
            <MenuAct key={each} isDrastic={each === 'bin' || each === 'delete'} onAct={() => onAct(each)}>
              {wordFor(each, node)}
            </MenuAct>
          ))}
        </Menu>
      )}
    </div>
  )
}

/** What holds files and pages, of which one may take some. */
const takesZip = ({ kind, actions }: NodeView): boolean =>
  (kind === 'folder' || kind === 'board' || kind === 'row') && has(actions as ActionSet, 'copy')

/** What one chose to do with a place, with what it does to whom first. */
export function ChosenAct({ act, node, onDone }: ActProps & { readonly act: Exclude<Act, 'rename'> }) {
  const Chosen = deciding[act]
  return (
    <div className="max-w-xl">
      <Chosen node={node} onDone={onDone} />
    </div>
  )
}

/** Homes neither move nor go into the bin, and are no drafts. */
function offersFor(node: NodeView, mayEdit: boolean): Act[] {
  const { home, mayRemove, actions, isArchived, kind, deletableFrom } = node
  const isInner = home === null
  const may = (action: Action) => has(actions as ActionSet, action)
  const offers: readonly (readonly [act: Act, isOffered: boolean])[] = [
    ['rename', mayEdit && home !== 'person'],
    ['move', mayRemove && isInner],
    ['web', may('publish') && home !== 'person' && !isArchived && kind !== 'row'],
    ['copy', may('copy') && isInner],
    ['draft', mayEdit && isInner],
    ['archive', mayRemove],
    ['bin', mayRemove && isInner],
    ['delete', deletableFrom !== null],
  ]
  return offers.flatMap(([act, isOffered]) => (isOffered ? [act] : []))
}

function wordFor(act: Act, { isDraft, isArchived, web, isPublic }: NodeView): string {
  switch (act) {
    case 'rename':
      return 'Rename'
    case 'move':
      return 'Move …'
    case 'copy':
      return 'Duplicate …'
    case 'web':
      return web !== null || isPublic ? 'Web …' : 'Publish …'
    case 'draft':
      return isDraft ? 'Release …' : 'Turn into a draft …'
    case 'archive':
      return isArchived ? 'Restore from the archive …' : 'Archive …'
    case 'bin':
      return 'Move to bin …'
    case 'delete':
      return 'Delete for good …'
  }
}

export interface ActProps {
  readonly node: NodeView
  readonly onDone: () => void
}

function Move({ node, onDone }: ActProps) {
  const { slug } = useHere()
  const [typed, setTyped] = useState('')
  const { data: goals } = useMoveTargetsQuery(
    { slug, id: node.id, find: typed },
    { skip: typed.trim() === '' },
  )
  const [goal, setGoal] = useState<PathView>()
  return (
    <OpenedBox onLeave={onDone}>
      <Combobox
        label={`Move ${node.name} to`}
        placeholder={goal === undefined ? 'Move to' : `${goal.name}, or another place`}
        options={(goals ?? []).map(({ id, name, path }) => ({ value: id, name, note: path }))}
        onTyped={setTyped}
        nobody="No place found that you can add to"
        onChoose={({ value }) => setGoal(goals?.find(each => each.id === value))}
      />
      {goal !== undefined && <MoveTo key={goal.id} node={node} goal={goal} onDone={onDone} />}
    </OpenedBox>
  )
}

function MoveTo({ node, goal, onDone }: ActProps & { readonly goal: PathView }) {
  const edit: EditRequest = { kind: 'node.move', node: node.id, parent: goal.id }
  const decision = useDecision([edit], `${node.name} is now in ${goal.name}.`, onDone)
  return (
    <Decision label={`Move to ${goal.name}`} onLeave={onDone} {...decision}>
      <p className="text-sm">The grants on {node.name} move with it. Inherited grants do not.</p>
    </Decision>
  )
}

function Draft({ node, onDone }: ActProps) {
  const edit: EditRequest = { kind: 'node.state', node: node.id, draft: !node.isDraft }
  const confirmation = node.isDraft ? `${node.name} is released.` : `${node.name} is now a draft.`
  const decision = useDecision([edit], confirmation, onDone)
  return (
    <Decision label={node.isDraft ? 'Release' : 'Turn into a draft'} onLeave={onDone} {...decision}>
      {!node.isDraft && (
        <p className="text-sm">
          Only people who can change or share it, and its creator, see a draft. The places in it stay visible.
        </p>
      )}
    </Decision>
  )
}

function Archive({ node, onDone }: ActProps) {
  const edit: EditRequest = { kind: 'node.state', node: node.id, archived: !node.isArchived }
  const confirmation = node.isArchived
    ? `${node.name} is restored from the archive.`
    : `${node.name} is archived.`
  const decision = useDecision([edit], confirmation, onDone)
  return (
    <Decision label={node.isArchived ? 'Restore' : 'Archive'} onLeave={onDone} {...decision}>
      {!node.isArchived && (
        <p className="text-sm">Everybody who can read it now still can. Nobody can change it.</p>
      )}
    </Decision>
  )
}

function Bin({ node, onDone }: ActProps) {
  const { slug } = useHere()
  const navigate = useNavigate()
  const edit: EditRequest = { kind: 'node.state', node: node.id, binned: true }
  const above = node.path.at(-1)
  const decision = useDecision([edit], `${node.name} is now in the bin.`, () => {
    onDone()
    void navigate(`/at/${slug}/content${above === undefined ? '' : `/${above.id}`}`)
  })
  return (
    <Decision label="Move to bin" isDrastic onLeave={onDone} {...decision}>
      <p className="text-sm">
        Nobody can open it there. People who can remove it can restore it for 30 days.
      </p>
    </Decision>
  )
}

/** A shared home goes for good from the archive, once it has been there for thirty days. */
function Delete({ node, onDone }: ActProps) {
  const { slug } = useHere()
  const navigate = useNavigate()
  const deleted = () => {
    onDone()
    void navigate(`/at/${slug}/content`)
  }
  const [openedAt] = useState(Date.now)
  const from = node.deletableFrom ?? 0
  if (from > openedAt)
    return (
      <p className="mt-2 bg-base-200 p-3 text-sm">
        A shared home is kept in the archive for 30 days first. It can be deleted from <Day at={from} />.
      </p>
    )
  return <DeleteForGood place={node} onDone={deleted} onLeave={onDone} />
}

const deciding = {
  move: Move,
  copy: Duplicate,
  draft: Draft,
  web: Publish,
  archive: Archive,
  bin: Bin,
  delete: Delete,
}
