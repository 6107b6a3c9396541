import { useState } from 'react'
import { useNavigate, useParams, useSearchParams } from 'react-router'
import { useHere } from '../../../api/use-here.ts'
import { Filters } from './Filters.tsx'
import { Many, type ManyAct, ManyBar } from './Many.tsx'
import { PeopleHead } from '../PeopleHead.tsx'
import { PeopleTable } from './PeopleTable.tsx'
import { PersonPanel } from '../person/PersonPanel.tsx'
import { useSelection } from './selection.ts'

/** Everybody who is here or invited, with the chosen one, or an act on many, at the right. */
export function PeopleScreen() {
  const { slug } = useHere()
  const { id } = useParams()
  const [params] = useSearchParams()
  const navigate = useNavigate()
  const selection = useSelection()
  const [act, setAct] = useState<ManyAct>()
  const open = (person?: string) => {
    setAct(undefined)
    const search = params.toString()
    void navigate(
      `/at/${slug}/people${person === undefined ? '' : `/${person}`}${search === '' ? '' : `?${search}`}`,
    )
  }
  const hasPanel = id !== undefined || act !== undefined
  return (
    <div className="beside [--panel:27rem]">
      <main className="grid min-h-0 min-w-0 grid-rows-[auto_auto_minmax(0,1fr)_auto] px-4 pt-3">
        <PeopleHead />
        <Filters />
        <PeopleTable chosen={id} isNarrow={hasPanel} onChoose={open} selection={selection} />
        <ManyBar selection={selection} act={act} onAct={setAct} />
      </main>
      {act !== undefined && (
        <Many
          key={act}
          act={act}
          ids={selection.ids}
          onClose={() => setAct(undefined)}
          onDone={() => {
            setAct(undefined)
            selection.clear()
          }}
        />
      )}
      {act === undefined && id !== undefined && <PersonPanel key={id} id={id} onClose={() => open()} />}
    </div>
  )
}
