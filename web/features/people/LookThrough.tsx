import { useEffect, useState } from 'react'
import type { OfferRequest } from '#contract/edit-requests.ts'
import type { OfferView } from '#contract/people-views.ts'
import { useOfferMutation } from '../../api/people.ts'
import { useHere } from '../../api/use-here.ts'
import { ProblemNote } from '../../ui/ProblemNote.tsx'
import { Reached } from '../../ui/Reached.tsx'
import { privilegeWords } from '#core/words/privilege.ts'

/** What somebody who takes this offer could see and do, asked anew a moment after it changes. */
export function useOfferView(offer: OfferRequest): OfferView | undefined {
  const { slug } = useHere()
  const [ask] = useOfferMutation()
  const asked = JSON.stringify(offer)
  const [answer, setAnswer] = useState<{ asked: string; view: OfferView | undefined }>()
  useEffect(() => {
    let isCurrent = true
    const timer = setTimeout(() => {
      void ask({ slug, offer: JSON.parse(asked) as OfferRequest }).then(({ data }) => {
        if (isCurrent) setAnswer({ asked, view: data })
      })
    }, 150)
    return () => {
      isCurrent = false
      clearTimeout(timer)
    }
  }, [ask, asked, slug])
  return answer?.asked === asked ? answer.view : undefined
}

interface Props {
  readonly view: OfferView | undefined
  /** How many would come. */
  readonly count: number
}

/** Looked through before anything is sent: where each of them gets, what they may do, what it costs in seats. */
export function LookThrough({ view, count }: Props) {
  if (view === undefined) return <p className="quiet">Working out what they would see …</p>
  if (view.problem !== null) return <ProblemNote problem={view.problem} />
  return (
    <>
      <Seats seats={view.seats} count={count} />
      <h3 className="mt-3 mb-1 font-bold">What each may do in the workspace</h3>
      <p className="text-sm">
        {view.role === '' ? '' : `${view.role}: `}
        {view.privileges.length === 0
          ? 'nothing beyond what is opened for them.'
          : `${view.privileges.map(each => privilegeWords[each]).join('; ')}.`}
        {view.teams.length > 0 && ` In ${view.teams.join(', ')}.`}
      </p>
      <h3 className="mt-3 mb-1 font-bold">
        Where each gets {view.places.length > 0 && <span className="quiet">({view.places.length})</span>}
      </h3>
      {view.places.length === 0 && (
        <p className="text-sm">Nowhere yet that you may be told of: nothing is opened for them.</p>
      )}
      <Reached
        label="What they would see"
        places={view.places}
        nameOf={place => <strong className="font-semibold">{place.name}</strong>}
      />
    </>
  )
}

function Seats({
  seats: { taken, bought, each },
  count,
}: {
  readonly seats: OfferView['seats']
  readonly count: number
}) {
  if (each === 0) return <p className="text-sm">They take no seat.</p>
  const after = taken - 1 + count
  if (bought === null)
    return (
      <p className="text-sm">
        {count === 1 ? '1 seat is' : `${count} seats are`} taken by it; there are as many as you like.
      </p>
    )
  const left = bought - after
  const look = left < 0 ? 'text-error' : left <= 1 ? 'text-warning' : ''
  return (
    <p className={`text-sm ${look}`}>
      {after} of {bought} seats would be taken{leftWords(left)}
    </p>
  )
}

function leftWords(left: number): string {
  if (left < 0) return ': there are not enough. Nobody of the list would be invited.'
  return left > 1 ? '.' : left === 1 ? ': one would be left.' : ': none would be left.'
}
