import * as Ariakit from '@ariakit/react'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import type { WorkspaceView } from '#contract/views/workspace.ts'
import { NothingFound } from '../ui/FoundList.tsx'

interface Command {
  readonly word: string
  readonly to: string
}

/** What one may do from anywhere, by its words. */
function commandsFor({ slug, me, managesPeople }: WorkspaceView): Command[] {
  const here = (path: string) => `/at/${slug}${path}`
  const may = (...needed: readonly string[]) => me.privileges.some(each => needed.includes(each))
  const commands: readonly (readonly [isOffered: boolean, word: string, to: string])[] = [
    [may('invite members', 'invite guests'), 'Invite people', here('/people/invite')],
    [may('invite members', 'invite guests'), 'Import people from CSV', here('/people/import')],
    [may('invite members', 'invite guests'), 'Create join link', here('/people/onboarding/new-link')],
    [may('invite members', 'invite guests'), 'Create welcome set', here('/people/onboarding/new-set')],
    [managesPeople, 'Show people', here('/people')],
    [managesPeople, 'Show guests', here('/people?as=guest')],
    [managesPeople, 'Show invitations', here('/people?status=invited')],
    [managesPeople, 'Show people whose access ends soon', here('/people?only=ends+soon')],
    [may('view people'), 'Find colleagues', here('/people/directory')],
    [may('create teams'), 'Create team', here('/teams/new')],
    [true, 'Show teams', here('/teams')],
    [may('edit roles'), 'Create role', here('/roles/new')],
    [may('view roles'), 'Show roles', here('/roles')],
    [may('view roles'), 'Show roles and privileges as a matrix', here('/roles/matrix')],
    [may('view roles'), 'Show who has a privilege', here('/roles/privileges')],
    [me.kind === 'member', 'Request a role', here('/roles/requests')],
    [may('view seats'), 'Show seats', here('/settings/seats')],
    [may('own'), 'Hand over the workspace', here('/settings/owners')],
    [may('see as', 'see the outline'), 'See the workspace as somebody else', here('/oversight/sessions')],
    [may('create homes'), 'Create shared home', here('/content/new-home')],
    [true, 'Open content', here('/content')],
    [true, 'Show the bin', here('/content/bin')],
    [true, 'Check who can do what, where and why', here('/oversight/check')],
    [true, 'Show requests for access', here('/oversight/requests')],
    [true, 'Show draft changes', here('/oversight/draft')],
    [may('view roles', 'edit levels'), 'Show access levels', here('/roles/levels')],
    [me.kind === 'member', 'Show the history', here('/oversight/history')],
    [may('edit settings', 'security'), 'Open settings', here('/settings')],
    [true, 'Show my access and roles', here('/me')],
    [true, 'Notification settings', here('/notifications')],
    [true, 'My account and sign-in', '/account'],
    [true, 'Switch workspace', '/workspaces'],
  ]
  return commands.flatMap(([isOffered, word, to]) => (isOffered ? [{ word, to }] : []))
}

export interface CommandsProps {
  readonly workspace: WorkspaceView
  readonly isOpen: boolean
  readonly onClose: () => void
}

/** What one may do from anywhere, to be found by its words. */
export const CommandList = ({ workspace, isOpen, onClose }: CommandsProps) => (
  <Ariakit.Dialog
    open={isOpen}
    onClose={onClose}
    unmountOnHide
    aria-label="Commands"
    backdrop={<div className="bg-black/40" />}
    className="fixed inset-x-0 top-24 z-50 mx-auto w-120 max-w-full border border-base-content bg-base-100 p-4"
  >
    <CommandChoice commands={commandsFor(workspace)} onChosen={onClose} />
  </Ariakit.Dialog>
)

interface ListProps {
  readonly commands: readonly Command[]
  readonly onChosen: () => void
}

function CommandChoice({ commands, onChosen }: ListProps) {
  const navigate = useNavigate()
  const [typed, setTyped] = useState('')
  const words = typed.toLowerCase().split(/\s+/).filter(Boolean)
  const found = commands.filter(({ word }) => words.every(each => word.toLowerCase().includes(each)))
  return (
    <Ariakit.ComboboxProvider open inputValue={typed} setInputValue={setTyped}>
      <Ariakit.Combobox
        className="field"
        aria-label="What do you want to do?"
        placeholder="What do you want to do?"
        autoFocus
        autoSelect="always"
      />
      <Ariakit.ComboboxList aria-label="Commands" alwaysVisible className="mt-2 max-h-96 overflow-y-auto">
        {found.map(({ word, to }) => (
          <Ariakit.ComboboxItem
            key={word}
            focusOnHover
            setValueOnClick={false}
            className="cursor-pointer px-2 py-1.5 data-active-item:bg-base-200 data-active-item:font-semibold"
            onClick={() => {
              onChosen()
              void navigate(to)
            }}
          >
            {word}
          </Ariakit.ComboboxItem>
        ))}
        {found.length === 0 && <NothingFound>No command with that name</NothingFound>}
      </Ariakit.ComboboxList>
    </Ariakit.ComboboxProvider>
  )
}
