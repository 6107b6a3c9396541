import { Link, useParams } from 'react-router'
import type { Problem } from '#contract/views/problem.ts'
import type { ViewedPlaceView, ViewedView, ViewingSessionView } from '#contract/views/viewing.ts'
import { listed } from '#core/words/english.ts'
import { useViewedQuery } from '../../api/roles.ts'
import { useHere } from '../../api/use-here.ts'
import { Time } from '../../ui/dates.tsx'
import { Level } from '../../ui/Gauge.tsx'
import { KindIcon } from '../../ui/KindIcon.tsx'
import { ProblemNote } from '../../ui/ProblemNote.tsx'

/** What a look shows, read-only, in a frame around the whole of it that cannot be overlooked. */
export function ViewingScreen() {
  const { slug } = useHere()
  const { session: session = '', node } = useParams()
  const { data, error } = useViewedQuery({ slug, id: session, ...(node === undefined ? {} : { node }) })
  if (error !== undefined)
    return (
      <main className="p-6">
        <ProblemNote problem={error as Problem} />
        <p className="mt-3">
          <Link className="link" to={`/at/${slug}/oversight/sessions`}>
            Back to sessions
          </Link>
        </p>
      </main>
    )
  if (data === undefined) return <main aria-busy />
  return (
    <div className="grid min-h-0 grid-rows-[auto_minmax(0,1fr)] border-8 border-warning">
      <Frame session={data.session} />
      <main className="min-h-0 overflow-y-auto px-6 py-4">
        {data.place === null ? (
          <h1 className="mb-2 text-xl font-bold">{topName(data.session)}</h1>
        ) : (
          <Place data={data} place={data.place} />
        )}
        <Children data={data} />
      </main>
    </div>
  )
}

const topName = ({ through }: ViewingSessionView) =>
  through === null ? 'Outline of all places' : `Places of ${through.name}`

function Frame({ session }: { readonly session: ViewingSessionView }) {
  const { slug } = useHere()
  return (
    <p className="flex items-baseline gap-3 bg-warning px-4 py-1 text-base-100">
      <strong>
        {session.through === null
          ? 'You have outline access.'
          : `You see the workspace as ${session.through.name}.`}
      </strong>
      <span>
        Read-only until <Time at={session.until} />: “{session.reason}”
      </span>
      <Link className="ml-auto font-semibold underline" to={`/at/${slug}/oversight/sessions`}>
        End session
      </Link>
    </p>
  )
}

interface PlaceProps {
  readonly data: ViewedView
  readonly place: NonNullable<ViewedView['place']>
}

function Place({ data, place }: PlaceProps) {
  const { slug } = useHere()
  const { session } = data
  return (
    <>
      <p className="quiet text-sm">
        <Link className="link" to={`/at/${slug}/oversight/sessions/${session.id}`}>
          {topName(session)}
        </Link>
        {place.path !== '' && ` › ${place.path}`}
      </p>
      <h1 className="mb-1 text-xl font-bold">{place.name}</h1>
      {session.through !== null && place.actions !== null && (
        <p className="mb-3 flex flex-wrap items-center gap-2">
          {session.through.name} has <Level actions={place.actions} />
          <span className="quiet">from {listed(place.through)}</span>
        </p>
      )}
      {place.text !== null && <p className="prose-page mb-4 whitespace-pre-wrap">{place.text}</p>}
    </>
  )
}

function Children({ data: { session, place, children, kept } }: { readonly data: ViewedView }) {
  if (children.length === 0)
    return <p className="quiet">{place === null ? 'No places.' : 'No places in it that you can see too.'}</p>
  return (
    <>
      <table className="sheet max-w-3xl">
        <thead>
          <tr>
            <th scope="col">Name</th>
            <th scope="col">Kind</th>
            {session.through !== null && <th scope="col">{session.through.name} has</th>}
          </tr>
        </thead>
        <tbody>
          {children.map(child => (
            <Child key={child.id} child={child} session={session} />
          ))}
        </tbody>
      </table>
      {kept.count > 0 && (
        <p className="quiet mt-3 max-w-3xl text-sm">
          There are also the private folders of {listed(kept.of)}
          {kept.count > kept.of.length && ` and ${kept.count - kept.of.length} more`}. They stay private.
        </p>
      )}
    </>
  )
}

function Child({
  child,
  session,
}: {
  readonly child: ViewedPlaceView
  readonly session: ViewingSessionView
}) {
  const { slug } = useHere()
  return (
    <tr>
      <td>
        <span className="flex items-center gap-2">
          <KindIcon kind={child.kind} isHome={child.home !== null} />
          <Link className="link" to={`/at/${slug}/oversight/sessions/${session.id}/${child.id}`}>
            {child.name}
          </Link>
          {child.path !== '' && <span className="quiet text-sm">{child.path}</span>}
        </span>
      </td>
      <td>
        {child.kind}
        {child.isBroken && <span className="text-error"> · inheritance broken</span>}
        {child.hasChildren && <span className="quiet"> · holds more</span>}
      </td>
      {session.through !== null && (
        <td>
          <Level actions={child.actions ?? 0} />
        </td>
      )}
    </tr>
  )
}
