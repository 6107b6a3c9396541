import { accountRoutes } from './routes/account.ts'
import { accessRoutes } from './routes/access.ts'
import { boardRoutes } from './routes/boards.ts'
import { changeRoutes } from './routes/changes.ts'
import { contentRoutes } from './routes/content.ts'
import { fileRoutes } from './routes/files.ts'
import { historyRoutes } from './routes/history.ts'
import { peopleRoutes } from './routes/people.ts'
import { roleRoutes } from './routes/roles.ts'
import { signInRoutes } from './routes/sign-in.ts'
import { workspaceRoutes } from './routes/workspace.ts'
import type { Operation } from './operations.ts'
import type { Exchange, Route } from './route.ts'

/** Every route of the API, by its operation: what the server takes and answers, the pages ask and the description tells. */
export const routes = {
  ...signInRoutes,
  ...accountRoutes,
  ...workspaceRoutes,
  ...contentRoutes,
  ...boardRoutes,
  ...fileRoutes,
  ...accessRoutes,
  ...peopleRoutes,
  ...roleRoutes,
  ...historyRoutes,
  ...changeRoutes,
} as const satisfies { readonly [O in Operation]: Route }

export type Routes = typeof routes
export type ExchangeOf<O extends Operation> = Exchange<O, Routes[O]>
export type AnswerOf<O extends Operation> = ExchangeOf<O>['answer']
