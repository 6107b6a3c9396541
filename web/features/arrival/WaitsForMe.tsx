import type { ReactNode } from 'react'
import { Link } from 'react-router'
import type { WantedView } from '#contract/views/requests.ts'
import { useSessionQuery } from '../../api/api.ts'
import { useDraftsQuery } from '../../api/drafts.ts'
import { useNotificationsQuery } from '../../api/oversight.ts'
import { useMyAccessQuery } from '../../api/people.ts'
import { useRequestsQuery } from '../../api/requests.ts'
import { useHere } from '../../api/use-here.ts'
import { Day } from '../../ui/dates.tsx'
import { useLevelName } from '../../ui/own-levels.ts'
import { wantedWords } from '../../ui/wanted-words.ts'

interface Item {
  readonly key: string
  /** Since when; not known of everything. */
  readonly at: number | null
  readonly text: ReactNode
  readonly reason: string
  readonly label: string
  readonly to: string
}

/** What others wait for, the longest waiting first; then what one was told and has not read. */
export function WaitsForMe() {
  const items = useWaiting()
  const { workspace } = useHere()
  const isEmpty = items.length === 0 && workspace.me.kind === 'guest'
  return (
    <div className="grid content-start gap-6">
      {!isEmpty && <Waiting items={items} />}
      <Unread />
    </div>
  )
}

const Waiting = ({ items }: { readonly items: readonly Item[] }) => (
  <section aria-label="Waiting for you">
    <h2 className="mb-1 text-lg font-bold">Waiting for you</h2>
    {items.length === 0 && (
      <p className="quiet border-t border-base-300 py-2">
        Nothing. Requests that you can decide appear here.
      </p>
    )}
    <ul>
      {items.map(({ key, at, text, reason, label, to }) => (
        <Line key={key} at={at} label={label} to={to}>
          {text}
          {reason !== '' && <span className="quiet"> · “{reason}”</span>}
        </Line>
      ))}
    </ul>
  </section>
)

interface LineProps {
  readonly at: number | null
  readonly label: string
  readonly to: string
  readonly children: ReactNode
}

const Line = ({ at, label, to, children }: LineProps) => (
  <li className="grid grid-cols-[minmax(0,1fr)_auto_auto] items-baseline gap-4 border-t border-base-300 py-1.5">
    <span className="min-w-0">{children}</span>
    <Link className="link text-sm" to={to}>
      {label}
    </Link>
    <span className="quiet text-right text-sm">{at !== null && <Day at={at} />}</span>
  </li>
)

function useWaiting(): Item[] {
  const { slug } = useHere()
  const { data: mine } = useMyAccessQuery(slug)
  const { data: session } = useSessionQuery()
  const handovers: Item[] = (mine?.handovers ?? []).map(({ id, from, at, reason }) => ({
    key: `handover ${id}`,
    at,
    text: <Says who={from.name} what="offers to hand over the workspace to you" />,
    reason,
    label: 'Decide',
    to: `/at/${slug}/me`,
  }))
  const invitations: Item[] = (session?.invitations ?? []).map(({ id, workspace, by }) => ({
    key: `invitation ${id}`,
    at: null,
    text: <Says who={by} what={`invites you to ${workspace}`} />,
    reason: '',
    label: 'Answer',
    to: '/workspaces',
  }))
  return [...useRequests(), ...useDraftsForMe(), ...handovers, ...invitations].sort(
    (a, b) => (a.at ?? 0) - (b.at ?? 0),
  )
}

/** Requests for access, for roles and to join teams that one may decide. */
function useRequests(): Item[] {
  const { slug } = useHere()
  const levelName = useLevelName()
  const { data } = useRequestsQuery(slug)
  const about = (wants: WantedView): { readonly what: string; readonly path: string } => {
    switch (wants.of) {
      case 'access': {
        const { place, actions } = wants
        return { what: `${levelName(actions)} on ${place.name}`, path: `content/${place.id}` }
      }
      case 'team':
        return { what: `to join ${wants.team.name}`, path: `teams/${wants.team.id}` }
      case 'role':
      case 'privilege':
        return { what: `to ${wantedWords(wants)}`, path: 'roles/requests' }
    }
  }
  return (data?.toDecide ?? []).map(({ id, person, wants, at, reason }) => {
    const { what, path } = about(wants)
    return {
      key: `request ${id}`,
      at,
      text: <Says who={person.name} what={`requests ${what}`} />,
      reason,
      label: 'Decide',
      to: `/at/${slug}/${path}`,
    }
  })
}

/** Change sets that somebody handed over. */
function useDraftsForMe(): Item[] {
  const { slug, workspace } = useHere()
  const { data } = useDraftsQuery(slug, { skip: workspace.me.kind === 'guest' })
  return (data?.kept ?? []).flatMap(({ id, name, from, comment: reason, changedAt: at }) => {
    if (from === null) return []
    const text = <Says who={from.name} what={`handed you the draft changes “${name}”`} />
    return [{ key: `draft ${id}`, at, text, reason, label: 'Preview', to: `/at/${slug}/oversight/draft` }]
  })
}

const Says = ({ who, what }: { readonly who: string; readonly what: string }) => (
  <>
    <strong>{who}</strong> {what}
  </>
)

const unreadAtMost = 6
/** What these tell of stands among what waits, as long as it does. */
const waiting: ReadonlySet<string> = new Set([
  'access requested',
  'role requested',
  'team requested',
  'handed',
  'handover offered',
])

function Unread() {
  const { slug } = useHere()
  const { data } = useNotificationsQuery(slug)
  const unread = (data?.notifications ?? []).filter(each => !each.isRead && !waiting.has(each.kind))
  if (unread.length === 0) return null
  return (
    <section aria-label="New for you">
      <h2 className="mb-1 text-lg font-bold">New for you</h2>
      <ul>
        {unread.slice(0, unreadAtMost).map(({ id, text, at, place, team, to }) => (
          <Line
            key={id}
            at={at}
            label={place?.name ?? team?.name ?? to?.name ?? 'Show'}
            to={`/at/${slug}/${place !== null ? `content/${place.id}` : team !== null ? `teams/${team.id}` : (to?.path ?? 'notifications')}`}
          >
            {text}
          </Line>
        ))}
      </ul>
      <p className="border-t border-base-300 pt-1.5 text-sm">
        <Link className="link" to={`/at/${slug}/notifications`}>
          All notifications
        </Link>
      </p>
    </section>
  )
}
