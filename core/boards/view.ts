/** How somebody looks at a board: which rows, in what order, in what groups, and drawn as what. All of it stands in an address. */
export interface ViewState {
  readonly layout: Layout
  /** What lanes part, or a calendar lies by; `null` for what the board offers first. */
  readonly by: string | null
  readonly where: Conditions
  readonly sort: readonly SortKey[]
  /** A column's id, `section`, or nothing. */
  readonly group: string | null
  /** Which columns are shown, in order; `null` for all, in the order of the board. */
  readonly columns: readonly ShownColumn[] | null
}

export const layouts = ['table', 'lanes', 'calendar'] as const
export type Layout = (typeof layouts)[number]

export interface Conditions {
  readonly join: Join
  /** One level of these may be nested. */
  readonly of: readonly (Condition | NestedConditions)[]
}
export type Join = 'all' | 'any'

export interface NestedConditions {
  readonly join: Join
  readonly of: readonly Condition[]
}

export interface Condition {
  readonly column: string
  readonly word: string
  readonly given: readonly string[]
}

export interface SortKey {
  readonly column: string
  readonly isDown: boolean
}

export interface ShownColumn {
  readonly column: string
  /** In CSS pixels; `null` for the usual. */
  readonly width: number | null
}

/** The first column of every board: what its rows are called. */
export const nameColumn = 'name'
/** What rows stand in, where a condition or a group is of that. */
export const sectionColumn = 'section'

export const plainView: ViewState = {
  layout: 'table',
  by: null,
  where: { join: 'all', of: [] },
  sort: [],
  group: sectionColumn,
  columns: null,
}

/** More would only make a server work. */
export const conditionsAtMost = 20
export const sortsAtMost = 5
const givenAtMost = 50
const givenLength = 200
const columnsAtMost = 100
/** In CSS pixels. */
export const columnWidths = { least: 40, most: 1000 } as const

export const isNested = (each: Condition | NestedConditions): each is NestedConditions => 'of' in each

export const everyCondition = ({ of }: Conditions): Condition[] =>
  of.flatMap(each => (isNested(each) ? each.of : [each]))

/** The same conditions and one more, that has to hold whatever they say: still with one level nested. */
export function withAlso({ join, of }: Conditions, more: Condition): Conditions {
  if (join === 'all') return { join, of: [...of, more] }
  if (of.length === 0) return { join: 'all', of: [more] }
  // Of several that could hold each has to hold with it.
  const each = of.flatMap((part): (readonly Condition[])[] => {
    if (!isNested(part)) return [[part]]
    return part.join === 'all' ? [part.of] : part.of.map(one => [one])
  })
  return { join: 'any', of: each.map(some => ({ join: 'all', of: [...some, more] })) }
}

/**
 * As it stands in an address: one parameter for each part that is not as usual. Within one, parts stand between `~`, `,`
 * and `;`, each percent-encoded a second time, so that any text passes.
 */
export function viewParameters(view: ViewState): Record<string, string> {
  const { layout, by, where, sort, group, columns } = view
  const parts: Record<string, string> = {}
  if (layout !== plainView.layout) parts['as'] = layout
  if (by !== null) parts['by'] = by
  if (where.of.length > 0) parts['where'] = writtenConditions(where)
  if (sort.length > 0)
    parts['sort'] = sort.map(each => `${each.isDown ? '-' : ''}${coded(each.column)}`).join(',')
  if (group !== plainView.group) parts['group'] = group ?? 'none'
  if (columns !== null)
    parts['columns'] = columns
      .map(({ column, width }) => (width === null ? coded(column) : `${coded(column)}~${width}`))
      .join(',')
  return parts
}

export const viewParameterNames = ['as', 'by', 'where', 'sort', 'group', 'columns'] as const

/** What an address says, or `undefined` where it says what no view is. */
export function viewFrom(parameters: (name: string) => string | null | undefined): ViewState | undefined {
  const layout = layouts.find(each => each === (parameters('as') ?? plainView.layout))
  const where = readConditions(parameters('where') ?? '')
  const sort = partsIn(parameters('sort'), readSort)
  const columns = partsIn(parameters('columns'), readShown)
  if (layout === undefined || where === undefined || sort === undefined || columns === undefined)
    return undefined
  if (everyCondition(where).length > conditionsAtMost || sort.length > sortsAtMost) return undefined
  const group = parameters('group') ?? plainView.group
  return {
    layout,
    by: parameters('by') || null,
    where,
    sort,
    group: group === 'none' ? null : group,
    columns: columns.length === 0 ? null : columns,
  }
}

// What encodeURIComponent leaves as it is, and that means something here.
const coded = (text: string): string =>
  encodeURIComponent(text).replaceAll('~', '%7E').replaceAll('(', '%28').replaceAll(')', '%29')

function decoded(text: string): string | undefined {
  try {
    return decodeURIComponent(text)
  } catch {
    return undefined
  }
}

const writtenCondition = ({ column, word, given }: Condition): string =>
  [column, word, ...given].map(coded).join('~')

const writtenConditions = ({ join, of }: Conditions): string =>
  (join === 'any' ? 'any;' : '') +
  of
    .map(each =>
      isNested(each) ? `${each.join}(${each.of.map(writtenCondition).join(',')})` : writtenCondition(each),
    )
    .join(';')

function readConditions(written: string): Conditions | undefined {
  if (written === '') return plainView.where
  const isAny = written.startsWith('any;')
  const of: (Condition | NestedConditions)[] = []
  for (const part of (isAny ? written.slice(4) : written).split(';')) {
    const nested = /^(all|any)\((.*)\)$/.exec(part)
    const read = nested === null ? readCondition(part) : readNested(nested[1] as Join, nested[2] ?? '')
    if (read === undefined) return undefined
    of.push(read)
  }
  return { join: isAny ? 'any' : 'all', of }
}

function readNested(join: Join, written: string): NestedConditions | undefined {
  const of = partsIn(written, readCondition)
  return of === undefined || of.length === 0 ? undefined : { join, of }
}

function readCondition(written: string): Condition | undefined {
  const parts = written.split('~').map(decoded)
  if (parts.some(each => each === undefined || each.length > givenLength)) return undefined
  const [column = '', word = '', ...given] = parts as string[]
  return column === '' || word === '' || given.length > givenAtMost ? undefined : { column, word, given }
}

function readSort(written: string): SortKey | undefined {
  const isDown = written.startsWith('-')
  const column = decoded(isDown ? written.slice(1) : written)
  return column === undefined || column === '' ? undefined : { column, isDown }
}

function readShown(written: string): ShownColumn | undefined {
  const [id = '', size] = written.split('~')
  const column = decoded(id)
  const width = size === undefined ? null : Number(size)
  const isFit =
    width === null || (Number.isInteger(width) && width >= columnWidths.least && width <= columnWidths.most)
  return column === undefined || column === '' || !isFit ? undefined : { column, width }
}

function partsIn<T>(
  written: string | null | undefined,
  read: (part: string) => T | undefined,
): T[] | undefined {
  if (written == null || written === '') return []
  const parts = written.split(',').map(read)
  return parts.length > columnsAtMost || parts.includes(undefined) ? undefined : (parts as T[])
}
