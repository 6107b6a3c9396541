import type { Group } from '#core/boards/rows.ts'

/** In CSS pixels. */
export const lineHeight = 30

/** A table line by line: heads of groups, their rows, and where new rows begin. Nothing is made of it that is not looked at. */
export interface Lines {
  readonly count: number
  readonly at: (line: number) => Line | undefined
  /** The line of a row by its position, or nothing where its group is folded. */
  readonly lineOf: (position: number) => number | undefined
  /** Where rows go that are let go of on a line, on its upper or its lower half. */
  readonly putAt: (line: number, isLower: boolean) => RowTarget | undefined
  /** Where some rows go by one step up or down; nothing at either end, or where they are of several groups. */
  readonly stepOf: (rows: Rows, step: -1 | 1) => RowTarget | undefined
}

/** Where rows are put: before the row at a position, or behind all of a group. */
export interface RowTarget {
  readonly group: Group
  readonly before: number | null
  /** The line at whose upper edge that is. */
  readonly line: number
}

/** From a position through another. */
export interface Rows {
  readonly top: number
  readonly bottom: number
}

export type Line =
  | { readonly of: 'group'; readonly group: Group; readonly index: number }
  | { readonly of: 'row'; readonly position: number }
  | { readonly of: 'new row'; readonly group: Group }

interface Part {
  readonly group: Group
  readonly index: number
  readonly line: number
  readonly position: number
  readonly isFolded: boolean
}

interface Laid {
  /** Whether groups have heads. */
  readonly hasHeads: boolean
  readonly folded: ReadonlySet<string>
  /** Whether a row can be made in each. */
  readonly takesRows: boolean
}

export function linesOf(groups: readonly Group[], { hasHeads, folded, takesRows }: Laid): Lines {
  const parts: Part[] = []
  let [line, position] = [0, 0]
  for (const [index, group] of groups.entries()) {
    const isFolded = hasHeads && folded.has(group.key)
    parts.push({ group, index, line, position, isFolded })
    line += (hasHeads ? 1 : 0) + (isFolded ? 0 : group.count + (takesRows ? 1 : 0))
    position += group.count
  }
  const head = hasHeads ? 1 : 0
  const behind = (part: Part, nth: number): RowTarget => ({
    group: part.group,
    before: nth < part.group.count ? part.position + nth : null,
    line: part.line + head + (part.isFolded ? 0 : nth),
  })
  const partOf = (position: number) => lastBefore(filled, each => each.position <= position)
  const filled = parts.filter(each => each.group.count > 0)
  return {
    count: line,
    at: wanted => {
      const part = lastBefore(parts, each => each.line <= wanted)
      if (part === undefined || wanted >= line) return undefined
      const within = wanted - part.line - head
      if (within < 0) return { of: 'group', group: part.group, index: part.index }
      return within < part.group.count
        ? { of: 'row', position: part.position + within }
        : { of: 'new row', group: part.group }
    },
    lineOf: wanted => {
      const part = partOf(wanted)
      return part === undefined || part.isFolded || wanted >= part.position + part.group.count
        ? undefined
        : part.line + head + (wanted - part.position)
    },
    putAt: (wanted, isLower) => {
      const part = lastBefore(parts, each => each.line <= wanted)
      if (part === undefined || wanted >= line) return undefined
      if (part.isFolded) return behind(part, part.group.count)
      const within = wanted - part.line - head
      return behind(part, Math.max(0, Math.min(part.group.count, within + (isLower ? 1 : 0))))
    },
    stepOf: ({ top, bottom }, step) => {
      const part = partOf(top)
      if (part === undefined || part !== partOf(bottom)) return undefined
      const nth = (step === -1 ? top - 1 : bottom + 2) - part.position
      if (nth >= 0 && nth <= part.group.count) return behind(part, nth)
      const next = parts[part.index + step]
      return next === undefined ? undefined : behind(next, step === -1 ? next.group.count : 0)
    },
  }
}

/** The last of some that come in order. */
function lastBefore(parts: readonly Part[], isBefore: (part: Part) => boolean): Part | undefined {
  let [low, high] = [0, parts.length]
  while (low < high) {
    const middle = (low + high) >> 1
    if (parts[middle] !== undefined && parts[middle].line >= 0 && isBefore(parts[middle])) low = middle + 1
    else high = middle
  }
  return parts[low - 1]
}
