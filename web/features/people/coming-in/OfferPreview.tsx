import { useEffect, useState } from 'react'
import type { OfferPreviewRequest } from '#contract/requests.ts'
import type { OfferView } from '#contract/views/onboarding.ts'
import { usePreviewOfferMutation } from '../../../api/people.ts'
import { counted, listed, numberWords } from '#core/words/english.ts'
import { useHere } from '../../../api/use-here.ts'
import { ProblemNote } from '../../../ui/ProblemNote.tsx'
import { Reached } from '../../../ui/Reached.tsx'
import { privilegeWords } from '#core/words/privilege.ts'

/** What somebody who takes this offer could see and do, asked anew a moment after it changes. */
export function useOfferView(offered: OfferPreviewRequest): OfferView | undefined {
  const { slug } = useHere()
  const [ask] = usePreviewOfferMutation()
  const query = JSON.stringify(offered)
  const [answer, setAnswer] = useState<{ query: string; view: OfferView | undefined }>()
  useEffect(() => {
    let isCurrent = true
    const timer = setTimeout(() => {
      void ask({ slug, ...(JSON.parse(query) as OfferPreviewRequest) }).then(({ data }) => {
        if (isCurrent) setAnswer({ query, view: data })
      })
    }, 150)
    return () => {
      isCurrent = false
      clearTimeout(timer)
    }
  }, [ask, query, slug])
  return answer?.query === query ? answer.view : undefined
}

interface Props {
  readonly view: OfferView | undefined
  /** How many would come. */
  readonly count: number
}

/** Looked through before anything is sent: where each of them gets, what they may do, what it costs in seats. */
export function OfferPreview({ view, count }: Props) {
  if (view === undefined) return <p className="quiet">Loading …</p>
  if (view.problem !== null) return <ProblemNote problem={view.problem} />
  const awake = view.privileges.filter(each => !view.asleep.includes(each))
  return (
    <>
      <Seats seats={view.seats} count={count} />
      <h3 className="mt-3 mb-1 font-bold">Privileges of each person</h3>
      <p className="text-sm">
        {view.role === '' ? '' : `${view.role}: `}
        {awake.length === 0
          ? 'no privileges in the workspace, only what is shared with them.'
          : `${listed(awake.map(each => privilegeWords[each]))}.`}
        {view.teams.length > 0 && ` In ${listed(view.teams)}.`}
      </p>
      {view.asleep.length > 0 && (
        <p className="quiet text-sm">
          No effect over these people only: {listed(view.asleep.map(each => privilegeWords[each]))}.
        </p>
      )}
      <h3 className="mt-3 mb-1 font-bold">
        Places of each person{' '}
        {view.places.length > 0 && <span className="quiet">({view.places.length})</span>}
      </h3>
      {view.places.length === 0 && <p className="text-sm">No places that you can see.</p>}
      <Reached
        label="Places of each person"
        places={view.places}
        nameOf={place => <strong className="font-semibold">{place.name}</strong>}
      />
    </>
  )
}

/** How many seats would be free after so many have come; fewer than none where there are not enough. */
export const seatsLeft = ({ taken, bought, each }: OfferView['seats'], count: number): number =>
  each === 0 || bought === null ? Number.POSITIVE_INFINITY : bought - (taken - 1 + count)

function Seats({ seats, count }: { readonly seats: OfferView['seats']; readonly count: number }) {
  if (seats.each === 0) return <p className="text-sm">No seats are needed.</p>
  const left = seatsLeft(seats, count)
  if (seats.bought === null)
    return (
      <p className="text-sm">
        {counted(count, 'seat is', 'seats are')} needed. The number of seats is not limited.
      </p>
    )
  const look = left < 0 ? 'text-error' : left <= 1 ? 'text-warning' : ''
  return (
    <p className={`text-sm ${look}`}>
      {counted(count, 'seat', 'seats')} needed, {numberWords(Math.max(0, left + count))} free{leftWords(left)}
    </p>
  )
}

function leftWords(left: number): string {
  if (left < 0) return '. There are not enough seats, so nobody would be invited.'
  return left > 1 ? '.' : left === 1 ? '. One seat would be left.' : '. No seat would be left.'
}
