import { type KeyboardEvent, useCallback, useEffect, useId, useRef, useState } from 'react'
import { useNavigate } from 'react-router'
import type { WorkspaceView } from '#contract/views.ts'

interface Act {
  readonly word: string
  readonly to: string
}

/** What one may do from anywhere, by its words. */
function actsFor({ slug, me, keepsPeople }: WorkspaceView): Act[] {
  const here = (path: string) => `/at/${slug}${path}`
  const may = (...needed: readonly string[]) => me.privileges.some(each => needed.includes(each))
  const acts: readonly (readonly [isOffered: boolean, word: string, to: string])[] = [
    [may('invite members', 'invite guests'), 'Invite people', here('/people/invite')],
    [may('invite members', 'invite guests'), 'Import people from CSV', here('/people/import')],
    [may('invite members', 'invite guests'), 'Create join link', here('/people/ways-in/new-link')],
    [may('invite members', 'invite guests'), 'Create welcome set', here('/people/ways-in/new-set')],
    [keepsPeople, 'Show people', here('/people')],
    [keepsPeople, 'Show guests', here('/people?as=guest')],
    [keepsPeople, 'Show invitations', here('/people?status=invited')],
    [keepsPeople, 'Show people whose access ends soon', here('/people?only=ends+soon')],
    [may('view people'), 'Find colleagues', here('/people/directory')],
    [may('create teams'), 'Create team', here('/teams/new')],
    [true, 'Show teams', here('/teams')],
    [may('edit roles'), 'Create role', here('/roles/new')],
    [may('view roles'), 'Show roles', here('/roles')],
    [may('view roles'), 'Show roles and privileges as a matrix', here('/roles/side-by-side')],
    [may('view roles'), 'Show who has a privilege', here('/roles/privileges')],
    [me.kind === 'member', 'Request a role', here('/roles/asked')],
    [may('view seats'), 'Show seats', here('/settings/seats')],
    [may('own'), 'Hand over the workspace', here('/settings/owners')],
    [may('see as', 'see the outline'), 'See the workspace as somebody else', here('/oversight/looks')],
    [may('create homes'), 'Create shared home', here('/content/new-home')],
    [true, 'Open content', here('/content')],
    [true, 'Show the bin', here('/content/bin')],
    [true, 'Check who can do what, where and why', here('/oversight/check')],
    [true, 'Show requests for access', here('/oversight/asked')],
    [true, 'Show draft changes', here('/oversight/gathered')],
    [may('view roles', 'edit levels'), 'Show access levels', here('/roles/levels')],
    [me.kind === 'member', 'Show the history', here('/oversight/history')],
    [may('edit settings', 'security'), 'Open settings', here('/settings')],
    [true, 'Show my access and roles', here('/me')],
    [true, 'Notification settings', here('/notices')],
    [true, 'My account and sign-in', '/account'],
    [true, 'Switch workspace', '/workspaces'],
  ]
  return acts.flatMap(([isOffered, word, to]) => (isOffered ? [{ word, to }] : []))
}

const isTyping = (target: EventTarget | null) =>
  target instanceof HTMLElement &&
  (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName))

/** Opens the list by the letter a; a slash goes to the field that finds on this page. */
function useKeys(open: () => void): void {
  useEffect(() => {
    const onKey = (event: globalThis.KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey || isTyping(event.target)) return
      if (event.key === 'a' && document.querySelector('dialog[open]') === null) open()
      else if (event.key === '/') document.querySelector<HTMLElement>('[data-find]')?.focus()
      else return
      event.preventDefault()
    }
    addEventListener('keydown', onKey)
    return () => removeEventListener('keydown', onKey)
  }, [open])
}

/** The list of commands, opened from anywhere. */
export function Acts({ workspace }: { readonly workspace: WorkspaceView }) {
  const dialog = useRef<HTMLDialogElement>(null)
  const [opened, setOpened] = useState(0)
  const navigate = useNavigate()
  const open = useCallback(() => {
    // A new list each time: nothing that was typed before stands in it.
    setOpened(count => count + 1)
    dialog.current?.showModal()
  }, [])
  useKeys(open)
  const choose = (act: Act) => {
    dialog.current?.close()
    void navigate(act.to)
  }
  return (
    <>
      <button type="button" className="flex items-center gap-1.5 text-sm" onClick={open}>
        <span className="act">Commands</span>
        <kbd className="border border-base-300 px-1 text-xs">a</kbd>
      </button>
      <dialog
        ref={dialog}
        aria-label="Commands"
        className="mx-auto mt-24 w-120 max-w-full border border-base-content bg-base-100 p-4 text-base-content backdrop:bg-black/40"
        onClick={event => {
          if (event.target === dialog.current) dialog.current.close()
        }}
      >
        <ActList key={opened} acts={actsFor(workspace)} onChoose={choose} />
      </dialog>
    </>
  )
}

interface ListProps {
  readonly acts: readonly Act[]
  readonly onChoose: (act: Act) => void
}

function ActList({ acts, onChoose }: ListProps) {
  const [typed, setTyped] = useState('')
  const [active, setActive] = useState(0)
  const id = useId()
  const words = typed.toLowerCase().split(/\s+/).filter(Boolean)
  const found = acts.filter(({ word }) => words.every(each => word.toLowerCase().includes(each)))
  const chosen = found[active]
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key === 'ArrowDown') setActive(Math.min(active + 1, found.length - 1))
    else if (event.key === 'ArrowUp') setActive(Math.max(active - 1, 0))
    else if (event.key === 'Enter' && chosen !== undefined) onChoose(chosen)
    else return
    event.preventDefault()
  }
  return (
    <>
      <input
        className="field"
        role="combobox"
        aria-label="What do you want to do?"
        aria-expanded
        aria-controls={id}
        aria-autocomplete="list"
        aria-activedescendant={chosen === undefined ? undefined : `${id}-${active}`}
        placeholder="What do you want to do?"
        autoFocus
        value={typed}
        onChange={event => {
          setTyped(event.target.value)
          setActive(0)
        }}
        onKeyDown={onKeyDown}
      />
      <ul id={id} role="listbox" aria-label="Commands" className="mt-2 max-h-96 overflow-y-auto">
        {found.map((act, index) => (
          <li
            key={act.word}
            id={`${id}-${index}`}
            role="option"
            aria-selected={index === active}
            className={`cursor-pointer px-2 py-1.5 ${index === active ? 'bg-base-200 font-semibold' : ''}`}
            onMouseMove={() => setActive(index)}
            onClick={() => onChoose(act)}
          >
            {act.word}
          </li>
        ))}
        {found.length === 0 && <li className="quiet px-2 py-1.5">No command with that name</li>}
      </ul>
    </>
  )
}
