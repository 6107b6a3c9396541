import { type ReactNode, useState } from 'react'
import { listed, placesWords } from '#core/words/english.ts'
import type { AccessiblePlaceView } from '#contract/views/access.ts'
import { Level } from './Gauge.tsx'

interface Props {
  readonly places: readonly AccessiblePlaceView[]
  readonly label: string
  /** A place's name, as a way to it. */
  readonly nameOf: (place: AccessiblePlaceView) => ReactNode
  /** The sum behind it, shown when it is asked for. */
  readonly sumOf?: (place: AccessiblePlaceView) => ReactNode
}

/** Where somebody has access: each place that differs from what it stands in, with the level and by what. */
export function Reached({ places, label, nameOf, sumOf }: Props) {
  const [opened, setOpened] = useState<string>()
  return (
    <ul aria-label={label}>
      {places.map(place => (
        <li key={place.id} className="border-t border-base-300 py-1.5">
          <div className="flex items-start justify-between gap-3">
            <span className="min-w-0">
              {nameOf(place)}
              {place.path !== '' && <span className="quiet block truncate text-sm">{place.path}</span>}
              <span className={`quiet block text-sm ${sumOf === undefined ? '' : 'leading-6'}`}>
                <span className="mr-3">{wayWords(place)}</span>
                {sumOf !== undefined && (
                  <button
                    type="button"
                    className="btn-inline text-base-content"
                    aria-expanded={place.id === opened}
                    aria-label={`Why: ${place.name}`}
                    onClick={() => setOpened(place.id === opened ? undefined : place.id)}
                  >
                    Why?
                  </button>
                )}
              </span>
            </span>
            <span className="w-29 shrink-0">
              <Level actions={place.actions} />
            </span>
          </div>
          {place.id === opened && sumOf?.(place)}
        </li>
      ))}
    </ul>
  )
}

/** "from a grant by name and Bird Counts · also 5 places below". */
function wayWords({ through, alike }: AccessiblePlaceView): string {
  const by =
    through.length === 0
      ? []
      : [`from ${listed(through.map(each => (each === 'by name' ? 'a grant by name' : each)))}`]
  const below = alike === 0 ? [] : [`also ${placesWords(alike)} below`]
  return [...by, ...below].join(' · ')
}
