import { useState } from 'react'
import { Day, Through } from '../../ui/dates.tsx'

interface Props {
  readonly from: number | null
  readonly until: number | null
  readonly timeZone: string
}

/** When one may come in, and for how long, in the days of the workspace. */
export function Lasting({ from, until, timeZone }: Props) {
  const [openedAt] = useState(Date.now)
  return (
    <>
      {from !== null && from > openedAt && (
        <p className="mb-4">
          Your access starts on <Day at={from} timeZone={timeZone} />. You can accept now.
        </p>
      )}
      {until !== null && (
        <p className="mb-4">
          Your access lasts <Through until={until} timeZone={timeZone} />.
        </p>
      )}
    </>
  )
}
