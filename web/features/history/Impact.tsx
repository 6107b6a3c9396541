import type { AuditEntryView, CountView } from '#contract/views/history.ts'
import { peopleWords, placesWords } from '#core/words/english.ts'

/** Who came to have more or less, in numbers. */
export function Effect({
  entry: { gains, losses },
}: {
  readonly entry: Pick<AuditEntryView, 'gains' | 'losses'>
}) {
  if (gains.people === 0 && losses.people === 0)
    return <span className="quiet">no effect that you can see</span>
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
    <span className="sr-only">{sign === '+' ? 'gained by' : 'lost by'}</span> {peopleWords(people)} on{' '}
    {placesWords(places)}
  </>
)
