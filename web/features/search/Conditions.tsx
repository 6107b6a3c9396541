import { useState } from 'react'
import { useNodeQuery } from '../../api/api.ts'
import { usePeopleNamesQuery } from '../../api/api.ts'
import { useSearchQuery, useSettled } from '../../api/search.ts'
import { useHere } from '../../api/use-here.ts'
import { Choice } from '../../ui/Choice.tsx'
import { Combobox } from '../../ui/Combobox.tsx'
import { kinds, type Search } from './search-query.ts'

interface Props {
  readonly search: Search
  readonly onChange: (name: keyof Search, value: string) => void
}

const spans = [
  { value: '', name: 'at any time' },
  { value: '1', name: 'in the last day' },
  { value: '7', name: 'in the last 7 days' },
  { value: '30', name: 'in the last 30 days' },
  { value: '365', name: 'in the last year' },
] as const

const kindOptions = [
  { value: '', name: 'anything' },
  ...kinds.map(value => ({ value, name: `${value}s` })),
] as const

/** What has to be so besides: where, by whom, what, since when. */
export const Conditions = ({ search, onChange }: Props) => (
  <div className="my-3 grid items-end grid-cols-2 gap-x-4 gap-y-2 lg:grid-cols-4">
    <Choice
      label="What"
      value={kindOptions.find(each => each.value === search.kind)?.value ?? ''}
      options={kindOptions}
      onValue={value => onChange('kind', value)}
    />
    <Choice
      label="Changed"
      value={spans.find(each => each.value === search.days)?.value ?? ''}
      options={spans}
      onValue={value => onChange('days', value)}
    />
    <Chosen label="In" name={useNameOfPlace(search.in)} onEnd={() => onChange('in', '')}>
      <PlaceField onChoose={id => onChange('in', id)} />
    </Chosen>
    <Chosen label="Changed by" name={useNameOfPerson(search.by)} onEnd={() => onChange('by', '')}>
      <PersonField onChoose={id => onChange('by', id)} />
    </Chosen>
  </div>
)

interface ChosenProps {
  readonly label: string
  readonly name: string | undefined
  readonly onEnd: () => void
  readonly children: React.ReactNode
}

/** What is chosen, with the way to let go of it; else the field that chooses. */
const Chosen = ({ label, name, onEnd, children }: ChosenProps) => (
  <div className="min-w-0">
    <span className="label-line">{label}</span>
    {name === undefined ? (
      children
    ) : (
      <span className="flex h-8 items-center justify-between gap-2 border border-base-300 px-2">
        <span className="truncate">{name}</span>
        <button type="button" className="btn-inline text-sm" aria-label={`Remove: ${name}`} onClick={onEnd}>
          Remove
        </button>
      </span>
    )}
  </div>
)

function useNameOfPlace(id: string | undefined): string | undefined {
  const { slug } = useHere()
  const { data } = useNodeQuery({ slug, id: id ?? '' }, { skip: id === undefined })
  return id === undefined ? undefined : (data?.name ?? 'a place that you cannot open')
}

function useNameOfPerson(id: string | undefined): string | undefined {
  const { slug } = useHere()
  const { data } = usePeopleNamesQuery(slug, { skip: id === undefined })
  return id === undefined ? undefined : (data?.find(each => each.id === id)?.name ?? 'somebody')
}

interface FieldProps {
  readonly onChoose: (id: string) => void
}

function PlaceField({ onChoose }: FieldProps) {
  const { slug } = useHere()
  const [typed, setTyped] = useState('')
  const find = useSettled(typed.trim())
  const { data } = useSearchQuery({ slug, find }, { skip: find === '' })
  return (
    <Combobox
      label="In which place"
      placeholder="Any place"
      options={(data?.hits ?? [])
        .filter(each => each.kind !== 'file')
        .map(({ id, name, path }) => ({ value: id, name: name.text, note: path }))}
      nobody="No place found"
      onTyped={setTyped}
      onChoose={({ value }) => onChoose(value)}
    />
  )
}

function PersonField({ onChoose }: FieldProps) {
  const { slug } = useHere()
  const { data = [] } = usePeopleNamesQuery(slug)
  return (
    <Combobox
      label="Changed by whom"
      placeholder="Anybody"
      options={data.map(({ id, name }) => ({ value: id, name, note: '' }))}
      onChoose={({ value }) => onChoose(value)}
    />
  )
}
