import { useState } from 'react'
import { usePlacesToCheckQuery } from '../../../api/access.ts'
import { useHere } from '../../../api/use-here.ts'
import { Combobox } from '../../../ui/Combobox.tsx'

interface Props {
  readonly id: string | null
  readonly onPlace: (id: string) => void
}

/** The place that a question is about, found by its name among those that one may ask about. */
export function AskedPlace({ id, onPlace }: Props) {
  const { slug } = useHere()
  const [typed, setTyped] = useState('')
  const { data: found = [] } = usePlacesToCheckQuery({ slug, find: typed })
  const { currentData: named } = usePlacesToCheckQuery({ slug, find: id ?? '' }, { skip: id === null })
  const chosen = named?.find(each => each.id === id)
  return (
    <div>
      <p className="label-line">Place</p>
      {chosen !== undefined && (
        <p className="mb-1">
          <strong>{chosen.name}</strong>
          {chosen.path !== '' && <span className="quiet block text-sm">{chosen.path}</span>}
        </p>
      )}
      <Combobox
        label="Place"
        placeholder={chosen === undefined ? 'Name of a place' : 'Another place'}
        nobody="No place found"
        options={found.map(({ id: value, name, path }) => ({ value, name, note: path }))}
        onTyped={setTyped}
        onChoose={({ value }) => onPlace(value)}
      />
    </div>
  )
}
