import type { RoleWantedView } from '#contract/views/requests.ts'
import { privilegeWords } from '#core/words/privilege.ts'

/** What is asked for, after “requests to”. */
export const wantedWords = (wants: RoleWantedView): string =>
  wants.of === 'role' ? `hold the role ${wants.role.name}` : privilegeWords[wants.privilege]
