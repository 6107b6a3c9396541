import { X } from 'lucide-react'
import { auditCategories } from '#core/changes/audit-event.ts'
import { useNodeQuery, usePeopleNamesQuery } from '../../api/api.ts'
import { useHere } from '../../api/use-here.ts'
import { Combobox } from '../../ui/Combobox.tsx'
import { FilterWords } from '../../ui/FilterWords.tsx'
import { type HistoryFilter, without } from './filter.ts'

interface Props {
  readonly filter: HistoryFilter
  readonly onFilter: (filter: HistoryFilter) => void
}

const words = ['everything', ...auditCategories] as const

/** By act, by person, by place: all that are chosen must fit. */
export function Filters({ filter, onFilter }: Props) {
  const { slug } = useHere()
  const { data: people = [] } = usePeopleNamesQuery(slug)
  const { category, person, place } = filter
  const chosen = people.find(each => each.id === person)
  return (
    <div className="mb-3 flex flex-wrap items-center gap-x-6 gap-y-2">
      <FilterWords
        label="Show"
        words={words}
        chosen={words.find(each => each === category) ?? 'everything'}
        onChoose={word =>
          onFilter(word === 'everything' ? without(filter, 'category') : { ...filter, category: word })
        }
      />
      {person === undefined && people.length > 0 && (
        <div className="w-48">
          <Combobox
            label="Person"
            placeholder="By or about a person"
            options={people.map(({ id, name, kind }) => ({ value: id, name, note: kind }))}
            onChoose={({ value }) => onFilter({ ...filter, person: value })}
          />
        </div>
      )}
      {person !== undefined && (
        <Chosen
          word={`by or about ${chosen?.name ?? 'a person'}`}
          onDrop={() => onFilter(without(filter, 'person'))}
        />
      )}
      {place !== undefined && <PlaceChosen place={place} onDrop={() => onFilter(without(filter, 'place'))} />}
    </div>
  )
}

function PlaceChosen({ place, onDrop }: { readonly place: string; readonly onDrop: () => void }) {
  const { slug } = useHere()
  const { data } = useNodeQuery({ slug, id: place })
  return <Chosen word={`in ${data?.name ?? 'a place'}`} onDrop={onDrop} />
}

const Chosen = ({ word, onDrop }: { readonly word: string; readonly onDrop: () => void }) => (
  <span className="flex items-center gap-1 bg-base-200 px-2 py-0.5">
    {word}
    <button
      type="button"
      className="cursor-pointer p-1"
      aria-label={`Remove filter: ${word}`}
      onClick={onDrop}
    >
      <X size={14} aria-hidden />
    </button>
  </span>
)
