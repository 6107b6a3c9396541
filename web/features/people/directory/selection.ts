import { useState } from 'react'
import { useLazyPeopleIdsQuery } from '../../../api/people.ts'
import { useHere } from '../../../api/use-here.ts'
import { useFilter } from './use-filter.ts'

export interface Selection {
  readonly ids: ReadonlySet<string>
  /** One row, or with `isRange` all from the last one that was chosen. */
  readonly toggle: (id: string, isRange: boolean) => void
  readonly all: () => void
  readonly clear: () => void
}

/** Who is selected. A range goes over rows that were never drawn: their order is asked for. */
export function useSelection(): Selection {
  const { slug } = useHere()
  const { filter } = useFilter()
  const [ids, setIds] = useState<ReadonlySet<string>>(new Set())
  const [anchor, setAnchor] = useState<string>()
  const [askOrder] = useLazyPeopleIdsQuery()
  const order = async () => (await askOrder({ slug, ...filter }, true)).data ?? []
  const toggleRange = async (from: string, to: string) => {
    const shown = await order()
    const [start, end] = [shown.indexOf(from), shown.indexOf(to)].sort((a, b) => a - b)
    if (start === undefined || end === undefined || start < 0) return
    setIds(before => new Set([...before, ...shown.slice(start, end + 1)]))
  }
  return {
    ids,
    toggle: (id, isRange) => {
      if (isRange && anchor !== undefined) void toggleRange(anchor, id)
      else
        setIds(before =>
          before.has(id) ? new Set([...before].filter(each => each !== id)) : new Set([...before, id]),
        )
      setAnchor(id)
    },
    all: () => void order().then(shown => setIds(new Set(shown))),
    clear: () => setIds(new Set()),
  }
}
