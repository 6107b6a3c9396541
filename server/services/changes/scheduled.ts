import type { WorkspaceId } from '#core/base/ids.ts'
import { ok } from '#core/base/result.ts'
import { nearingIn, scheduledTransitionsOf, theWorkspace, waitingIn } from '#core/changes/scheduled.ts'
import { snapshotOf } from '#core/state/snapshot.ts'
import { atRevision } from '#core/state/state.ts'
import type { Parts } from '../../parts.ts'
import { agedIn, need, putAway } from '../../store/states.ts'
import { noteDueOf, type Prepare, passWhatIsDue, readAnew } from '../../store/writer.ts'
import { nothingWritten, type Written } from '../notifications/kind.ts'
import { notificationsOf, telling } from '../notifications/write.ts'
import { type Writing, writingOf } from './audit-entry.ts'
import type { TopicConcern } from '../notifications/topics.ts'

/**
 * What time does by itself: every start and end since the last look becomes an entry of the history by
 * the workspace, and whoever an end comes near is told.
 */
export const passing =
  (parts: Parts, workspace: WorkspaceId): Prepare<void, never> =>
  candidates => {
    const before = candidates.snapshotOf(workspace)
    const since = parts.writer.states.heads.get(workspace)?.passedTo
    if (before === undefined || since === undefined) return ok({ value: undefined })
    const { now } = candidates
    let state = before.state
    const writings: Writing[] = []
    for (const each of scheduledTransitionsOf(state, since, now)) {
      state = atRevision(each.state, state.revision + 1)
      const after = { state, at: each.at }
      const entry = { workspace, author: theWorkspace, reason: '', edits: [], undone: null, sentAlong: {} }
      writings.push(writingOf(parts, { ...entry, transition: each.transition, after }))
    }
    writings.push(warning(parts, { workspace, since, now, state }))
    return ok({
      value: undefined,
      ...(state === before.state ? {} : { state }),
      rows: writings.flatMap(each => each.rows),
      news: [...writings.flatMap(each => each.news), { of: 'passed', workspace }],
    })
  }

interface Looked {
  readonly workspace: WorkspaceId
  readonly since: number
  readonly now: number
  readonly state: Parameters<typeof nearingIn>[0]
}

/** Notices of ends that come near and of requests that wait: nothing changed, so no entry of the history. */
function warning(parts: Parts, { workspace, since, now, state }: Looked): Writing {
  const snapshot = snapshotOf(state, now)
  const written: Written = {
    ...nothingWritten(theWorkspace, snapshot),
    nearing: nearingIn(state, since, now),
    waiting: waitingIn(state, since, now),
  }
  const notified = telling(parts, { rows: notificationsOf(parts, workspace, written), written })
  const people = notified.news.flatMap(each => (each.of === 'notifications' ? each.people : []))
  if (people.length === 0) return notified
  const { revision } = state
  const concerns: TopicConcern[] = [{ topics: ['notifications'], people }]
  return { ...notified, news: [...notified.news, { of: 'event', workspace, revision, concerns }] }
}

/** Looks at least this often: a machine that slept, or a clock that was set, is noticed then. */
const longestWait = 1000

/** So long nobody has asked about a workspace that is put away. */
const unusedFor = 30 * 60_000

export interface Clockwork {
  timer: NodeJS.Timeout | null
  /** What it does now. */
  looking: Promise<void>
  isStopped: boolean
}

/** Wakes the writer at each start and end, so that it passes though nobody writes; keeps what lies in memory small. */
export function startClockwork(parts: Parts): Clockwork {
  const clockwork: Clockwork = { timer: null, looking: Promise.resolve(), isStopped: false }
  const look = async () => {
    await readWhatIsDue(parts, clockwork)
    await passWhatIsDue(parts.writer)
    putAwayUnused(parts)
    if (!clockwork.isStopped) await readWhatAged(parts)
  }
  const wind = (wait: number) => {
    clockwork.timer = setTimeout(() => {
      clockwork.looking = look()
        .catch(parts.writer.fault)
        .then(() => {
          if (!clockwork.isStopped) wind(untilNext(parts))
        })
    }, wait)
  }
  wind(0)
  return clockwork
}

/** How long it is to the next start or end, in milliseconds. */
function untilNext({ writer, clock }: Parts): number {
  const now = clock()
  let least = longestWait
  for (const { dueAt } of writer.states.heads.values()) least = Math.min(least, (dueAt ?? 0) - now)
  return Math.max(1, least)
}

/** Reads the workspaces that nobody uses and in which something is due, or may be. */
async function readWhatIsDue({ writer, clock }: Parts, clockwork: Clockwork): Promise<void> {
  const { states } = writer
  for (const [workspace, { dueAt }] of states.heads) {
    if (clockwork.isStopped) return
    if (dueAt !== null && (dueAt > clock() || states.published.has(workspace))) continue
    await need(states, workspace)
    if (dueAt === null) await noteDueOf(writer, workspace)
  }
}

/** Lets go of workspaces that nobody has asked about for long, and whose pages nobody has open. */
export function putAwayUnused({ writer, hub, clock, documentNodes }: Parts): void {
  const listened = new Set([...hub.streams].map(stream => stream.workspace))
  putAway(writer.states, clock() - unusedFor, workspace => listened.has(workspace))
  for (const workspace of documentNodes.keys())
    if (!writer.states.published.has(workspace)) documentNodes.delete(workspace)
}

async function readWhatAged({ writer }: Parts): Promise<void> {
  for (const workspace of agedIn(writer.states)) await readAnew(writer, workspace)
}

/** Waits for what it does now. */
export async function stopClockwork(clockwork: Clockwork): Promise<void> {
  clockwork.isStopped = true
  if (clockwork.timer !== null) clearTimeout(clockwork.timer)
  await clockwork.looking
}
