import { type RequestHandler, type Request, Router } from 'express'
import { closeStreams } from '../live/hub.ts'
import type { Parts } from '../parts.ts'
import { problemOf } from '../problem-error.ts'
import { arrive, type Asker } from '../services/viewer/asker.ts'
import { isSignInOver, notePresence } from '../services/account/presence.ts'
import { accessHandlers } from './handlers/access.ts'
import { accountHandlers } from './handlers/account.ts'
import { boardHandlers } from './handlers/boards.ts'
import { changeHandlers } from './handlers/changes.ts'
import { contentHandlers } from './handlers/content.ts'
import { fileHandlers } from './handlers/files.ts'
import { historyHandlers } from './handlers/history.ts'
import { peopleHandlers } from './handlers/people.ts'
import { roleHandlers } from './handlers/roles.ts'
import { signInHandlers } from './handlers/sign-in.ts'
import { workspaceHandlers } from './handlers/workspace.ts'
import { type AccountHandlers, mount, type OpenHandlers, type WorkspaceHandlers } from './mount.ts'
import { accountOf, end } from './session.ts'

/** Every route of the API. Who is asking is settled first, in one place, for each. */
export function apiRoutes(parts: Parts, fewTries: RequestHandler): Router {
  const within: WorkspaceHandlers = {
    ...workspaceHandlers(parts),
    ...contentHandlers(parts),
    ...boardHandlers(parts),
    ...fileHandlers(parts),
    ...accessHandlers(parts),
    ...peopleHandlers(parts),
    ...roleHandlers(parts),
    ...historyHandlers(parts),
    ...changeHandlers(parts),
  }
  const ofAccount: AccountHandlers = accountHandlers(parts)
  const open: OpenHandlers = signInHandlers(parts)
  return Router().use(
    mount(parts, { handlers: open, whoIn: () => undefined, fewTries }),
    mount(parts, { handlers: ofAccount, whoIn: accountOf, fewTries }),
    mount(parts, { handlers: within, whoIn: askerIn(parts), fewTries }),
  )
}

/** Who asks, if their sign-in still holds here. */
const askerIn =
  (parts: Parts) =>
  async (request: Request): Promise<Asker> => {
    const found = await arrive(parts, accountOf(request), String(request.params.slug))
    const { sessionID: session } = request
    if (isSignInOver(parts, found, { session, madeAt: request.session.madeAt ?? 0 })) {
      closeStreams(parts.hub, session)
      await end(request)
      throw problemOf('not-signed-in')
    }
    notePresence(parts, found, session)
    // Every answer tells of which state it speaks.
    request.res?.set('noskel-revision', String(found.snapshot.state.revision))
    return found
  }
