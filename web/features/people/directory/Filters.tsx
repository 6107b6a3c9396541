import { usePeopleQuery } from '../../../api/people.ts'
import { useTeamsQuery } from '../../../api/api.ts'
import { peopleWords } from '#core/words/english.ts'
import { useHere } from '../../../api/use-here.ts'
import { useAppDispatch, useAppSelector } from '../../../store/store.ts'
import { addPeopleColumn } from '../../../store/view.ts'
import { Choice } from '../../../ui/Choice.tsx'
import { Menu, MenuTick } from '../../../ui/Menu.tsx'
import { extraColumnsOf } from './columns.tsx'
import { useFilter } from './use-filter.ts'

const kinds = [
  { value: 'member', word: 'Members' },
  { value: 'guest', word: 'Guests' },
] as const
const standings = [
  { value: 'active', word: 'Active' },
  { value: 'invited', word: 'Invited' },
  { value: 'suspended', word: 'Suspended' },
  { value: 'coming', word: 'Starts later' },
  { value: 'over', word: 'Ended' },
] as const
const marks = [
  { value: 'ends soon', word: 'Ends soon' },
  { value: 'long absent', word: 'Inactive' },
  { value: 'dead link', word: 'Expired link' },
  { value: 'no contact', word: 'No contact' },
  { value: 'no second step', word: 'No two-step sign-in' },
  { value: 'not confirmed', word: 'Address not confirmed' },
  { value: 'in no team', word: 'In no team' },
  { value: 'takes a seat', word: 'Uses a seat' },
] as const

/** Words that combine: each narrows what is shown; pressed again it lets go. */
export function Filters() {
  const { filter, set } = useFilter()
  const only = (filter.only ?? '').split(',').filter(Boolean)
  const toggle = (mark: string) =>
    set({ only: (only.includes(mark) ? only.filter(each => each !== mark) : [...only, mark]).join(',') })
  const isFiltered = Object.keys(filter).some(key => key !== 'sort' && key !== 'down' && key !== 'kept')
  return (
    <div className="mb-2 grid gap-y-1.5 text-[0.95rem]">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1.5">
        <input
          className="field max-w-66"
          data-find
          aria-label="Find people"
          placeholder="f  Name, address, handle, team"
          value={filter.find ?? ''}
          onChange={event => set({ find: event.target.value })}
        />
        <Words
          label="Kind"
          words={kinds}
          chosen={[filter.as ?? '']}
          onWord={as => set({ as: other(filter.as, as) })}
        />
        <span aria-hidden className="h-4 border-l border-base-300" />
        <Words
          label="Status"
          words={standings}
          chosen={[filter.status ?? '']}
          onWord={status => set({ status: other(filter.status, status) })}
        />
        <Selects />
      </div>
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1.5">
        <Words label="Marks" words={marks} chosen={only} onWord={toggle} />
        <Shown />
        <Columns />
        {isFiltered && (
          <button
            type="button"
            className="btn-inline text-sm"
            onClick={() => set({ find: '', as: '', status: '', role: '', team: '', only: '' })}
          >
            Clear filters
          </button>
        )}
      </div>
    </div>
  )
}

/** Chosen again, it is let go. */
const other = (now: string | undefined, word: string) => (now === word ? '' : word)

function Shown() {
  const { slug } = useHere()
  const { filter } = useFilter()
  const { data } = usePeopleQuery({ slug, ...filter })
  return (
    <span className="quiet ml-auto text-sm" role="status">
      {data === undefined ? '' : `${peopleWords(data.total)} shown`}
    </span>
  )
}

/** What is listed of each besides. */
function Columns() {
  const dispatch = useAppDispatch()
  const { filter } = useFilter()
  const added = useAppSelector(state => state.view.peopleColumns)
  const extra = extraColumnsOf(filter)
  if (extra.length === 0) return null
  return (
    <Menu buttonClass="btn-inline text-sm" button="Columns">
      {extra.map(head => (
        <MenuTick
          key={head}
          isOn={added.includes(head)}
          onTurn={isAdded => dispatch(addPeopleColumn({ head, isAdded }))}
        >
          {head}
        </MenuTick>
      ))}
    </Menu>
  )
}

function Selects() {
  const { slug, workspace } = useHere()
  const { data: teams = [] } = useTeamsQuery(slug)
  const { filter, set } = useFilter()
  return (
    <>
      <span className="w-28 xl:w-36">
        <Choice
          isQuiet
          label="Role"
          value={filter.role ?? ''}
          options={[
            { value: '', name: 'Any role' },
            ...workspace.roles.map(({ id, name }) => ({ value: id, name })),
          ]}
          onValue={role => set({ role })}
        />
      </span>
      <span className="w-28 xl:w-36">
        <Choice
          isQuiet
          label="Team"
          value={filter.team ?? ''}
          options={[{ value: '', name: 'Any team' }, ...teams.map(({ id, name }) => ({ value: id, name }))]}
          onValue={team => set({ team })}
        />
      </span>
    </>
  )
}

interface WordsProps {
  readonly label: string
  readonly words: readonly { readonly value: string; readonly word: string }[]
  readonly chosen: readonly string[]
  readonly onWord: (value: string) => void
}

const Words = ({ label, words, chosen, onWord }: WordsProps) => (
  <div role="group" aria-label={label} className="flex flex-wrap gap-x-3.5 gap-y-1">
    {words.map(({ value, word }) => (
      <button
        key={value}
        type="button"
        aria-pressed={chosen.includes(value)}
        className={`cursor-pointer border-b-2 ${chosen.includes(value) ? 'border-primary font-bold' : 'border-transparent hover:border-base-300'}`}
        onClick={() => onWord(value)}
      >
        {word}
      </button>
    ))}
  </div>
)
