import { createContext, useContext } from 'react'
import type { ActionSet } from '#core/levels/action.ts'
import { nameOfActions, type OwnLevel } from '#core/levels/level.ts'

/** The levels of the open workspace’s own: a set that equals one goes by its name. */
export const OwnLevels = createContext<readonly OwnLevel[]>([])

/** How a set of actions is called here. */
export function useLevelName(): (actions: number) => string {
  const own = useContext(OwnLevels)
  return actions => nameOfActions(actions as ActionSet, own).name
}
