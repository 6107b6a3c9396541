import { workspaceOf } from '#core/state/state.ts'
import { lastSeenOf, noteLastSeen } from '../../store/sessions.ts'
import type { Parts } from '../../parts.ts'
import type { Asker } from '../viewer/asker.ts'
import { publicId } from './sign-ins.ts'

const hour = 3_600_000

/** Whether a sign-in is over for a workspace: it began too long ago, or was not used for too long. */
export function isSignInOver(
  { sessions, clock }: Parts,
  { snapshot }: Asker,
  { session, madeAt }: { readonly session: string; readonly madeAt: number },
): boolean {
  const { signInDays, idleHours } = workspaceOf(snapshot.state)
  const used = Math.max(madeAt, lastSeenOf(sessions, '', publicId(session)) ?? 0)
  return clock() >= Math.min(madeAt + signInDays * 24 * hour, used + idleHours * hour)
}

/** Notes that somebody was here, and that a sign-in was used. */
export function notePresence(
  { sessions, clock }: Parts,
  { workspace, person }: Asker,
  session: string,
): void {
  const at = clock()
  noteLastSeen(sessions, { workspace, who: person, at })
  noteLastSeen(sessions, { workspace: '', who: publicId(session), at })
}
