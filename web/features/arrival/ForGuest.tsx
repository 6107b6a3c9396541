import { Link } from 'react-router'
import { useMyAccessQuery } from '../../api/people.ts'
import { useHere } from '../../api/use-here.ts'
import { Day, Through } from '../../ui/dates.tsx'
import { Level } from '../../ui/Gauge.tsx'

/** What somebody from outside asks first: who invited me, to what, until when, and whom do I turn to. */
export function ForGuest() {
  const { slug, workspace } = useHere()
  const { data } = useMyAccessQuery(slug)
  if (data === undefined) return null
  const { invitedBy, contact, until, places } = data
  return (
    <section
      aria-label="Your access"
      className="mb-6 max-w-2xl border-l-4 border-primary bg-base-200 px-4 py-3"
    >
      <p>
        You are a guest here{invitedBy !== null && `, invited by ${invitedBy}`}.{' '}
        {until === null ? (
          'Your access has no end.'
        ) : (
          <>
            Your access ends after <Day at={until - 1} timeZone={workspace.timeZone} />.
          </>
        )}{' '}
        {contact !== null && `If you have a question, ask ${contact.name}.`}
      </p>
      <h2 className="mt-3 mb-1 font-bold">Shared with you</h2>
      {places.length === 0 && <p>Nothing is shared with you yet.</p>}
      <ul>
        {places.map(({ id, name, kind, path, actions, until }) => (
          <li key={id} className="flex items-center justify-between gap-4 border-t border-base-300 py-1">
            <span className="min-w-0">
              <Link className="link font-semibold" to={`/at/${slug}/content/${id}`}>
                {name}
              </Link>
              <span className="quiet text-sm">
                {' '}
                {kind}
                {path !== '' && ` in ${path}`}
                {until !== null && (
                  <>
                    {' · '}
                    <Through until={until} timeZone={workspace.timeZone} />
                  </>
                )}
              </span>
            </span>
            <span className="shrink-0 text-sm">
              <Level actions={actions} />
            </span>
          </li>
        ))}
      </ul>
    </section>
  )
}
