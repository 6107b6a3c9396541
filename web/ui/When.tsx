import { useState } from 'react'
import { Day, Through } from './dates.tsx'

interface Props {
  readonly from: number | null
  readonly until: number | null
  readonly timeZone: string
}

/** That something counts only later, or ends: “· starts 3 Dec · until 5 Jan”. Nothing for what just is. */
export function When({ from, until, timeZone }: Props) {
  const [openedAt] = useState(Date.now)
  return (
    <>
      {from !== null && from > openedAt && (
        <span className="text-warning">
          {' · starts '}
          <Day at={from} timeZone={timeZone} />
        </span>
      )}
      {until !== null && (
        <span className="quiet">
          {' · '}
          <Through until={until} timeZone={timeZone} />
        </span>
      )}
    </>
  )
}
