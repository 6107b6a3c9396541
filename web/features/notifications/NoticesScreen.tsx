import { useState } from 'react'
import { Link } from 'react-router'
import type {
  NotificationChoice,
  NotificationView,
  NotificationsView,
} from '#contract/views/notifications.ts'
import {
  useChooseNotificationsMutation,
  useNotificationsQuery,
  useReadNotificationsMutation,
} from '../../api/oversight.ts'
import { useDecision } from '../../api/use-decision.ts'
import { useHere } from '../../api/use-here.ts'
import { Day } from '../../ui/dates.tsx'
import { Decision } from '../../ui/Decision.tsx'
import { NotYet } from '../../ui/NotYet.tsx'

/** What one was told, and how one wants to be told of what. */
export function NotificationsScreen() {
  const { slug } = useHere()
  const { data, error } = useNotificationsQuery(slug)
  if (data === undefined) return <NotYet error={error} />
  return (
    <div className="grid min-h-0 max-md:overflow-y-auto md:grid-cols-[minmax(0,1fr)_25rem]">
      <main className="min-h-0 overflow-y-auto px-4 py-3">
        <Inbox view={data} />
      </main>
      <aside
        aria-label="Notification settings"
        className="min-h-0 overflow-y-auto border-base-300 px-4 py-3 max-md:border-t md:border-l"
      >
        <Choices view={data} />
      </aside>
    </div>
  )
}

function Inbox({ view: { notifications, unread } }: { readonly view: NotificationsView }) {
  const { slug } = useHere()
  const [mark] = useReadNotificationsMutation()
  return (
    <>
      <div className="mb-3 flex items-center gap-6">
        <h1 className="text-xl font-bold">Notifications</h1>
        <span className="quiet text-sm">{unread === 0 ? 'all read' : `${unread} unread`}</span>
        {unread > 0 && (
          <button
            type="button"
            className="btn-plain ml-auto"
            onClick={() => void mark({ slug, isRead: true })}
          >
            Mark all as read
          </button>
        )}
      </div>
      {notifications.length === 0 && (
        <p className="py-6">
          No notifications yet. When something is shared with you, changes or ends soon, you see it here.
        </p>
      )}
      <ul>
        {notifications.map(notification => (
          <Notification
            key={notification.id}
            notification={notification}
            onMark={() => void mark({ slug, ids: [notification.id], isRead: !notification.isRead })}
          />
        ))}
      </ul>
    </>
  )
}

function Notification({
  notification,
  onMark,
}: {
  readonly notification: NotificationView
  readonly onMark: () => void
}) {
  const { text, at, isRead, offer } = notification
  const [isOpen, setOpen] = useState(false)
  return (
    <li className="grid grid-cols-[0.75rem_minmax(0,1fr)_auto] items-baseline gap-3 border-t border-base-300 py-2">
      <span aria-hidden className={`size-2 self-center ${isRead ? '' : 'bg-primary'}`} />
      <span>
        <span className={isRead ? '' : 'font-semibold'}>{text}</span>
        {!isRead && <span className="sr-only"> (unread)</span>}{' '}
        <Ways notification={notification} onFollow={isRead ? undefined : onMark} />{' '}
        {offer !== null && !isOpen && (
          <button type="button" className="btn-inline text-sm" onClick={() => setOpen(true)}>
            {offer.label} …
          </button>
        )}
        {offer !== null && isOpen && <Offer offer={offer} onDone={() => setOpen(false)} />}
      </span>
      <span className="flex items-baseline gap-4 text-sm">
        <button type="button" className="btn-inline" onClick={onMark}>
          {isRead ? 'Mark as unread' : 'Mark as read'}
        </button>
        <span className="quiet">
          <Day at={at} />
        </span>
      </span>
    </li>
  )
}

interface WaysProps {
  readonly notification: NotificationView
  readonly onFollow: (() => void) | undefined
}

/** Where one can look at what a notification is about, and do something about it. */
function Ways({ notification: { place, team, to, revision }, onFollow }: WaysProps) {
  const { slug } = useHere()
  const ways = [
    ...(place === null ? [] : [{ word: `Open ${place.name}`, path: `content/${place.id}` }]),
    ...(team === null ? [] : [{ word: `Open ${team.name}`, path: `teams/${team.id}` }]),
    ...(to === null ? [] : [{ word: to.name, path: to.path }]),
    ...(revision === null ? [] : [{ word: 'Show', path: `oversight/history/${revision}` }]),
  ]
  return ways.map(({ word, path }) => (
    <Link key={path} className="link mr-3 text-sm" to={`/at/${slug}/${path}`} onClick={onFollow}>
      {word}
    </Link>
  ))
}

interface OfferProps {
  readonly offer: NonNullable<NotificationView['offer']>
  readonly onDone: () => void
}

/** What can be done about it at once: its effect, then the act. */
function Offer({ offer, onDone }: OfferProps) {
  const decision = useDecision(offer.edits, offer.confirmation, onDone)
  return <Decision label={offer.label} onLeave={onDone} {...decision} />
}

const ways = Object.entries({
  'by mail too': 'also by mail',
  'here only': 'only here',
  'not at all': 'never',
} satisfies Record<NotificationChoice, string>)

function Choices({ view }: { readonly view: NotificationsView }) {
  const { slug } = useHere()
  const [choose] = useChooseNotificationsMutation()
  return (
    <>
      <h2 className="mb-1 text-lg font-bold">Notification settings</h2>
      <p className="quiet mb-3 text-sm">“Never” turns off new notifications of a kind. Earlier ones stay.</p>
      {view.choices.map(({ kind, when, choice }) => (
        <label
          key={kind}
          className="mb-2 grid grid-cols-[minmax(0,1fr)_8rem] items-center gap-3 border-t border-base-300 pt-2"
        >
          <span>Notify me when {when}</span>
          <select
            className="choice"
            value={choice}
            onChange={event => void choose({ slug, kind, choice: event.target.value as NotificationChoice })}
          >
            {ways.map(([way, word]) => (
              <option key={way} value={way}>
                {word}
              </option>
            ))}
          </select>
        </label>
      ))}
    </>
  )
}
