interface Props<Sort extends string> {
  readonly word: string
  readonly sort: Sort
  readonly chosen: Sort
  readonly isTurned: boolean
  readonly isNumber?: boolean
  /** The first order is the one with the most, or the newest, on top. */
  readonly isDownFirst?: boolean
  readonly onSort: (sort: Sort) => void
}

/** The head of a column that a table is sorted by: pressed again it turns the order round. */
export const SortHead = <Sort extends string>({
  word,
  sort,
  chosen,
  isTurned,
  isNumber = false,
  isDownFirst = isNumber,
  onSort,
}: Props<Sort>) => (
  <th
    scope="col"
    className={isNumber ? 'text-right' : ''}
    aria-sort={sort === chosen ? (isTurned === isDownFirst ? 'ascending' : 'descending') : undefined}
  >
    <button type="button" className="cursor-pointer whitespace-nowrap" onClick={() => onSort(sort)}>
      {word}
      <span aria-hidden>{sort === chosen ? (isTurned === isDownFirst ? ' ↑' : ' ↓') : ''}</span>
    </button>
  </th>
)
