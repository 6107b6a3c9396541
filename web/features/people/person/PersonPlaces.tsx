import { useState } from 'react'
import { Link } from 'react-router'
import type { PersonView } from '#contract/views/people.ts'
import { useAccessOfPersonQuery } from '../../../api/people.ts'
import { useHere } from '../../../api/use-here.ts'
import { Reached } from '../../../ui/Reached.tsx'
import { PlaceExplanation } from './PlaceExplanation.tsx'

/** Every place that somebody reaches with the level, and why, as far as one may be told. */
export function PersonPlaces({ person }: { readonly person: PersonView }) {
  const { slug } = useHere()
  const [isOpen, setOpen] = useState(false)
  const { data: places } = useAccessOfPersonQuery(
    { slug, id: person.id },
    { skip: person.status === 'invited' },
  )
  if (places === undefined || person.status === 'invited') return null
  const shown = isOpen ? places : places.slice(0, 5)
  return (
    <section aria-label="Places" className="mt-5 border-t border-base-content pt-3">
      <h3 className="mb-1 font-bold">Places</h3>
      <p className="mb-1">
        <Link className="link text-sm" to={`/at/${slug}/people/${person.id}/places`}>
          Change grants on many places
        </Link>
      </p>
      {places.length === 0 && <p className="quiet">No places that you can see.</p>}
      <Reached
        label={`Places of ${person.name}`}
        places={shown}
        nameOf={place => (
          <Link className="link" to={`/at/${slug}/content/${place.id}`}>
            {place.name}
          </Link>
        )}
        sumOf={place => <PlaceExplanation place={place.id} person={person.id} />}
      />
      {places.length > 5 && (
        <button type="button" className="btn-inline text-sm" onClick={() => setOpen(!isOpen)}>
          {isOpen ? 'Show fewer' : `Show all ${places.length}`}
        </button>
      )}
    </section>
  )
}
