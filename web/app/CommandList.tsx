import * as Ariakit from '@ariakit/react'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import type { WorkspaceView } from '#contract/views/workspace.ts'
import { NothingFound } from '../ui/FoundList.tsx'
import { type Command, commandsFor, commandsWith } from './commands.ts'

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
  const found = commandsWith(commands, typed)
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
