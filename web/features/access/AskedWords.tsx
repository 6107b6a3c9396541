import type { AccessRequestView } from '#contract/access-views.ts'
import { Day } from '../../ui/dates.tsx'
import { useLevelName } from '../../ui/own-levels.ts'

/** Who asks for what, since when, and with which word. */
export function AskedWords({ request }: { readonly request: AccessRequestView }) {
  const levelName = useLevelName()
  return (
    <>
      <p>
        <strong>{request.person.name}</strong>
        {request.isGuest && <span className="quiet"> (guest)</span>} asks for {levelName(request.wants)}
        <span className="quiet">
          {request.has === 0 ? '' : `, has ${levelName(request.has)} now`} · <Day at={request.at} />
        </span>
      </p>
      {request.word !== '' && <p className="quiet text-sm">“{request.word}”</p>}
    </>
  )
}
