import type { WantedView } from '#contract/role-views.ts'
import { privilegeWords } from '#core/words/privilege.ts'

/** What is asked for, after “requests to”. */
export const wantedWords = (wants: WantedView): string =>
  'role' in wants ? `hold the role ${wants.role.name}` : privilegeWords[wants.privilege]
