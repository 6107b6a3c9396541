import type { LevelId } from '../base/ids.ts'
import { type Action, actions, type ActionSet, holds, noActions } from './action.ts'

/**
 * Levels name closed sets of actions. The seven built-in ones each hold all of the one before;
 * a workspace adds levels of its own, which need not lie on that line.
 */

export const builtInLevels = [
  'Preview',
  'Reader',
  'Commenter',
  'Adder',
  'Editor',
  'Curator',
  'Steward',
] as const
export type BuiltInLevel = (typeof builtInLevels)[number]

const adds: Readonly<Record<BuiltInLevel, readonly Action[]>> = {
  Preview: ['see'],
  Reader: ['copy'],
  Commenter: ['comment'],
  Adder: ['add'],
  Editor: ['change'],
  Curator: ['remove', 'arrange'],
  Steward: ['share', 'seal', 'publish'],
}

const sets = new Map<BuiltInLevel, ActionSet>(
  builtInLevels.map((level, step) => [
    level,
    actions(...builtInLevels.slice(0, step + 1).flatMap(each => adds[each])),
  ]),
)

export function levelActions(level: BuiltInLevel): ActionSet {
  return sets.get(level) ?? noActions
}

/** A level of the workspace's own. Grants hold it by reference: changing it changes them all. */
export interface OwnLevel {
  readonly id: LevelId
  readonly name: string
  readonly note: string
  readonly actions: ActionSet
}

/** How a set is called: a level's name, or the highest built-in level within it and whether there is more. */
export interface LevelName {
  readonly name: string
  /** 0 for none, 1 to 7 for the highest built-in level contained in the set. */
  readonly step: number
  /** The set holds more than the level of `step`. */
  readonly more: boolean
}

export function nameOfActions(set: ActionSet, own: readonly OwnLevel[] = []): LevelName {
  const step = builtInLevels.findLastIndex(level => holds(set, levelActions(level))) + 1
  const builtIn = builtInLevels[step - 1]
  const more = set !== (builtIn === undefined ? noActions : levelActions(builtIn))
  const exact = more ? own.find(level => level.actions === set) : undefined
  return {
    name: exact?.name ?? (builtIn === undefined ? 'No access' : builtIn + (more ? '+' : '')),
    step,
    more,
  }
}

/** For each of the seven steps how much of what it adds is held: the gauge that is drawn beside a name. */
export function gaugeOf(set: ActionSet): ('full' | 'half' | 'none')[] {
  return builtInLevels.map(level => {
    const held = adds[level].filter(action => holds(set, actions(action))).length
    return held === adds[level].length ? 'full' : held > 0 ? 'half' : 'none'
  })
}
