import type { AccessRequestView } from '#contract/access-views.ts'
import { Day } from '../../ui/dates.tsx'
import { useLevelName } from '../../ui/own-levels.ts'

/** Who requests what, since when, and with which word. */
export function AskedWords({ request }: { readonly request: AccessRequestView }) {
  const levelName = useLevelName()
  return (
    <>
      <p>
        <strong>{request.person.name}</strong>
        {request.isGuest && <span className="quiet"> (guest)</span>} requests {levelName(request.wants)}
        <span className="quiet">
          {request.has === 0 ? '' : `, now has ${levelName(request.has)}`} · <Day at={request.at} />
        </span>
      </p>
      {request.word !== '' && <p className="quiet text-sm">“{request.word}”</p>}
    </>
  )
}
