import * as Ariakit from '@ariakit/react'
import type { ReactNode } from 'react'
import { useNavigate } from 'react-router'
import type { SearchView } from '#contract/views/search.ts'
import type { WorkspaceView } from '#contract/views/workspace.ts'
import { useSearchQuery, useSettled } from '../api/search.ts'
import { KindIcon } from '../ui/KindIcon.tsx'
import { MarkedWords } from '../ui/MarkedWords.tsx'
import { commandsFor, commandsWith } from './commands.ts'

export interface SearchBoxProps {
  readonly workspace: WorkspaceView
  readonly isOpen: boolean
  readonly onClose: () => void
  readonly typed: string
  readonly onType: (typed: string) => void
}

/** One field over all that one may see: places, what is written in them, people, teams, and what one may do. */
export const SearchBox = ({ workspace, isOpen, onClose, typed, onType }: SearchBoxProps) => (
  <Ariakit.Dialog
    open={isOpen}
    onClose={onClose}
    unmountOnHide
    aria-label="Search"
    backdrop={<div className="bg-black/40" />}
    className="fixed inset-x-0 top-14 z-50 mx-auto flex max-h-[80vh] w-184 max-w-full flex-col border border-base-content bg-base-100 p-4"
  >
    <Finding {...{ workspace, typed, onType }} onChosen={onClose} />
  </Ariakit.Dialog>
)

const shownHits = 8
const shownCommands = 4

interface FindingProps extends Pick<SearchBoxProps, 'workspace' | 'typed' | 'onType'> {
  readonly onChosen: () => void
}

function Finding({ workspace, typed, onType, onChosen }: FindingProps) {
  const navigate = useNavigate()
  const find = useSettled(typed.trim())
  const here = `/at/${workspace.slug}`
  // What was found last stays until the next is there.
  const { data, currentData } = useSearchQuery({ slug: workspace.slug, find }, { skip: find === '' })
  const go = (to: string) => () => {
    onChosen()
    void navigate(`${here}${to}`)
  }
  const commands =
    typed.trim() === '' ? [] : commandsWith(commandsFor(workspace), typed).slice(0, shownCommands)
  return (
    <Ariakit.ComboboxProvider open inputValue={typed} setInputValue={onType}>
      <Ariakit.Combobox
        className="field"
        aria-label="Search everything you can see"
        placeholder="Search everything you can see"
        autoFocus
        autoSelect="always"
      />
      {typed.trim() === '' ? (
        <p className="quiet mt-3 text-sm">
          Places, what is written in them and in files, people, teams and commands. Arrow keys choose, Enter
          opens.
        </p>
      ) : (
        <Ariakit.ComboboxList aria-label="Found" alwaysVisible className="mt-2 min-h-0 overflow-y-auto">
          <Found view={data} go={go} />
          <Group name="Commands" isShown={commands.length > 0}>
            {commands.map(({ word, to }) => (
              <Item key={word} onChoose={go(to.startsWith(here) ? to.slice(here.length) : to)}>
                {word}
              </Item>
            ))}
          </Group>
          <Item onChoose={go(`/search?find=${encodeURIComponent(typed.trim())}`)}>
            <span className="quiet">
              {currentData?.hits.length === 0 ? 'Nothing found. ' : ''}All results for “{typed.trim()}”, with
              conditions …
            </span>
          </Item>
        </Ariakit.ComboboxList>
      )}
    </Ariakit.ComboboxProvider>
  )
}

interface FoundProps {
  readonly view: SearchView | undefined
  readonly go: (to: string) => () => void
}

function Found({ view, go }: FoundProps) {
  if (view === undefined) return null
  const { hits, people, teams } = view
  return (
    <>
      <Group name="Places" isShown={hits.length > 0}>
        {hits.slice(0, shownHits).map(({ id, kind, name, path, excerpt }) => (
          <Item key={id} onChoose={go(`/content/${id}`)}>
            <span className="flex items-baseline gap-2">
              <KindIcon kind={kind} />
              <span className="min-w-0 grow">
                <span className="flex items-baseline gap-2">
                  <span className="min-w-0 break-words">
                    <MarkedWords of={name} />
                  </span>
                  <span className="quiet min-w-0 grow basis-24 truncate text-sm">{path}</span>
                </span>
                {excerpt !== null && (
                  <span className="quiet line-clamp-1 text-sm">
                    <MarkedWords of={excerpt} />
                  </span>
                )}
              </span>
            </span>
          </Item>
        ))}
      </Group>
      <Group name="People" isShown={people.length > 0}>
        {people.slice(0, shownCommands).map(({ id, name, kind, mail }) => (
          <Item key={id} onChoose={go(`/people/directory/${id}`)}>
            <MarkedWords of={name} />{' '}
            <span className="quiet text-sm">{[kind, mail].filter(Boolean).join(', ')}</span>
          </Item>
        ))}
      </Group>
      <Group name="Teams" isShown={teams.length > 0}>
        {teams.slice(0, shownCommands).map(({ id, name }) => (
          <Item key={id} onChoose={go(`/teams/${id}`)}>
            <MarkedWords of={name} />
          </Item>
        ))}
      </Group>
    </>
  )
}

interface GroupProps {
  readonly name: string
  readonly isShown: boolean
  readonly children: ReactNode
}

const Group = ({ name, isShown, children }: GroupProps) =>
  isShown && (
    <Ariakit.ComboboxGroup className="border-t border-base-300 py-1 first:border-t-0">
      <Ariakit.ComboboxGroupLabel className="quiet px-2 pt-0.5 text-sm">{name}</Ariakit.ComboboxGroupLabel>
      {children}
    </Ariakit.ComboboxGroup>
  )

interface ItemProps {
  readonly onChoose: () => void
  readonly children: ReactNode
}

const Item = ({ onChoose, children }: ItemProps) => (
  <Ariakit.ComboboxItem
    focusOnHover
    setValueOnClick={false}
    className="cursor-pointer px-2 py-1 data-active-item:bg-base-200"
    onClick={onChoose}
  >
    {children}
  </Ariakit.ComboboxItem>
)
