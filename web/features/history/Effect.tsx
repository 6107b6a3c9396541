import type { CountView, EntryView } from '#contract/oversight-views.ts'
import { withCommas } from '#core/words/impact.ts'

/** Who came to have more or less, in numbers. */
export function Effect({
  entry: { gains, losses },
}: {
  readonly entry: Pick<EntryView, 'gains' | 'losses'>
}) {
  if (gains.people === 0 && losses.people === 0) return <span className="quiet">none that you can see</span>
  return (
    <span className="grid">
      {gains.people > 0 && <span>{counted('+', gains)}</span>}
      {losses.people > 0 && <span>{counted('−', losses)}</span>}
    </span>
  )
}

/** "+ 3 people on 12 places": the sign says whether they gained or lost. */
const counted = (sign: '+' | '−', { people, places }: CountView) => (
  <>
    <span aria-hidden className="inline-block w-3 font-bold">
      {sign}
    </span>
    <span className="sr-only">{sign === '+' ? 'more for' : 'less for'}</span>{' '}
    {people === 1 ? '1 person' : `${withCommas(people)} people`} on{' '}
    {places === 1 ? '1 place' : `${withCommas(places)} places`}
  </>
)
