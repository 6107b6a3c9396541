import type { Request, Response } from 'express'
import { leave, listen, type Message } from '../../live/hub.ts'
import type { Parts } from '../../parts.ts'
import { placesToOffer } from '../../services/access/accessible-places.ts'
import { searchView } from '../../services/search/search.ts'
import { myAccessView } from '#server/services/workspace/my-access.ts'
import { binView, treeView } from '../../services/content/content.ts'
import { streamFor } from '../../services/notifications/live.ts'
import { onboardingView } from '../../services/people/onboarding.ts'
import { keepPicture, pictureOf } from '../../services/changes/pictures.ts'
import { settingsView } from '../../services/workspace/settings.ts'
import { teamsView } from '../../services/teams/teams.ts'
import { workspaceView } from '../../services/workspace/workspace.ts'
import type { WorkspaceHandlers } from '../mount.ts'
import { accountOf } from '../session.ts'

/** Often enough that nothing on the way takes the stream for dead, and that its reader notices when it is. */
const beatEvery = 15_000

/** A workspace as one of its people finds it. */
export const workspaceHandlers = (parts: Parts) =>
  ({
    workspace: asker => workspaceView(asker),
    settings: asker => settingsView(parts, asker),
    onboarding: asker => onboardingView(parts, asker),
    myAccess: asker => myAccessView(parts, asker),
    teams: asker => teamsView(asker),
    bin: asker => binView(asker),
    tree: asker => treeView(parts, asker),
    search: (asker, { query }) => searchView(parts, asker, query),
    places: (asker, { query }) => placesToOffer(asker, query.find),
    keepPicture: (asker, { body }) => keepPicture(parts, asker, body),
    picture: async (asker, { params, response }) => {
      const bytes = await pictureOf(parts, asker, params.id)
      // A picture is never another one under the same id.
      response.set('cache-control', 'private, max-age=604800, immutable')
      return bytes
    },
    // Server-sent events: of which topics something changed for the reader, never what.
    live: (_, { params, query, request, response }) => {
      const stream = streamFor(parts, {
        account: accountOf(request),
        slug: params.slug,
        session: request.sessionID,
        send: message => write(response, message),
        close: () => response.end(),
      })
      begin(response)
      listen(parts.hub, stream, lastIdOf(request) ?? query.after)
      const beat = setInterval(() => response.write('event: beat\ndata: {}\n\n'), beatEvery)
      response.on('close', () => {
        clearInterval(beat)
        leave(parts.hub, stream)
      })
    },
  }) satisfies Partial<WorkspaceHandlers>

/** What a browser that lost the connection sends by itself; a new tab sends it as `after`. */
function lastIdOf(request: Request): string | undefined {
  const id = request.get('last-event-id')
  return id === undefined || id === '' ? undefined : id
}

function begin(response: Response): void {
  response.set({
    'content-type': 'text/event-stream',
    // Compressed, events would wait for one another.
    'cache-control': 'no-store, no-transform',
    'x-accel-buffering': 'no',
  })
  response.flushHeaders()
  response.write('retry: 1000\n\n')
}

function write(response: Response, { event, ...message }: Message): void {
  response.write(`id: ${message.id}\nevent: ${event}\ndata: ${JSON.stringify(message)}\n\n`)
}
