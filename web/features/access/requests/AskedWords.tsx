import type { AccessWantedView, RequestView } from '#contract/views/requests.ts'
import { Day } from '../../../ui/dates.tsx'
import { useLevelName } from '../../../ui/own-levels.ts'

/** Who requests what, since when, and with which word. */
export function AskedWords({ request }: { readonly request: RequestView<AccessWantedView> }) {
  const levelName = useLevelName()
  const { actions, has } = request.wants
  return (
    <>
      <p>
        <strong>{request.person.name}</strong>
        {request.isGuest && <span className="quiet"> (guest)</span>} requests {levelName(actions)}
        <span className="quiet">
          {has === 0 ? '' : `, now has ${levelName(has)}`} · <Day at={request.at} />
        </span>
      </p>
      {request.reason !== '' && <p className="quiet text-sm">“{request.reason}”</p>}
    </>
  )
}
