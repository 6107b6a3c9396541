import { noteSeen } from '../store/visits.ts'
import type { Parts } from '../parts.ts'
import type { Asker } from './asker.ts'
import { publicId } from './sign-ins.ts'

/** Notes that somebody was here, and that a sign-in was used. */
export function notePresence({ visits, clock }: Parts, { workspace, person }: Asker, session: string): void {
  const at = clock()
  noteSeen(visits, { workspace, who: person, at })
  noteSeen(visits, { workspace: '', who: publicId(session), at })
}
