import type { GrantView } from '#contract/views/access.ts'
import { type ActionSet, intersect } from '#core/levels/action.ts'
import { levelActions } from '#core/levels/level.ts'

/** Nobody gives more than they hold, and guests hold no stewardship. */
export const atMostFor = (kind: GrantView['kind'], held: number): number =>
  kind === 'guest' ? intersect(held as ActionSet, levelActions('Curator')) : held
