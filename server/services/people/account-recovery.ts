import { rowOf } from '#core/base/collection.ts'
import type { PersonId } from '#core/base/ids.ts'
import { lacksOver } from '#core/changes/edits/person.ts'
import type { Parts } from '../../parts.ts'
import { ProblemError, problemOf } from '../../problem-error.ts'
import { accountRow } from '../account/account-row.ts'
import { sendLink } from '../account/account-links.ts'
import type { Asker } from '../viewer/asker.ts'
import { problemFrom } from '../changes/change-set.ts'
import { endSignInsBut } from '../account/sign-ins.ts'

/**
 * Helping somebody to sign in: a link goes to the account's own address, which nobody else sees. It opens the way to
 * a new password, and out of a second step that is lost.
 */
export async function sendSignInLink(parts: Parts, asker: Asker, id: string): Promise<void> {
  await sendLink(parts, await accountHelped(parts, asker, id), 'sign-in')
}

/** Ends every sign-in of somebody, at all their devices. */
export async function endTheirSignIns(parts: Parts, asker: Asker, id: string): Promise<void> {
  await endSignInsBut(parts, (await accountHelped(parts, asker, id)).id, null)
}

async function accountHelped(parts: Parts, asker: Asker, id: string) {
  const { snapshot, person: author } = asker
  const context = { author, before: snapshot, now: snapshot }
  const refusal = lacksOver(context, id as PersonId, 'reset sign-in')
  if (refusal !== undefined) throw new ProblemError(problemFrom({ refusal, edit: null }, asker))
  const account = rowOf(snapshot.state.persons, id as PersonId)?.account
  if (account == null) throw problemOf('not-found')
  return accountRow(parts, account)
}
