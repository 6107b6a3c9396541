import { Link } from 'react-router'
import type { Problem } from '#contract/views/problem.ts'
import { useAccessOfPersonQuery } from '../../../api/people.ts'
import { placesWords } from '#core/words/english.ts'
import { useHere } from '../../../api/use-here.ts'
import { Reached } from '../../../ui/Reached.tsx'
import { NotTold } from './NotTold.tsx'
import { useIsWhole } from './use-is-whole.ts'

/** Every place that somebody reaches, those that have the same as what they stand in counted with it. */
export function WhatAnswer({ person }: { readonly person: string }) {
  const { slug, workspace } = useHere()
  const { currentData: places, error } = useAccessOfPersonQuery({ slug, id: person })
  const isWhole = useIsWhole() || person === workspace.me.id
  if (error !== undefined) return <NotTold problem={error as Problem} />
  if (places === undefined) return <p className="quiet">Loading …</p>
  const count = places.reduce((sum, place) => sum + 1 + place.alike, 0)
  const word = placesWords(count)
  return (
    <>
      <p className="mb-2">
        {isWhole ? (
          <>
            Access to <strong>{count === 0 ? 'no place' : word}</strong>
            {count > 0 && ', and to nothing else'}.
          </>
        ) : (
          <>
            Access to <strong>{count === 0 ? 'no place' : word}</strong> that you may check.
          </>
        )}
      </p>
      <div className="max-w-3xl">
        <Reached
          label="Places with access"
          places={places}
          nameOf={place => (
            <Link
              className="link font-semibold"
              to={`/at/${slug}/oversight/check?ask=why&place=${place.id}&person=${person}`}
            >
              {place.name}
            </Link>
          )}
        />
      </div>
    </>
  )
}
