import { useExplanationQuery } from '../../../api/api.ts'
import { useHere } from '../../../api/use-here.ts'
import { Sum } from '../../../ui/Sum.tsx'

/** The sum behind what somebody may do at a place; it is told to those who share there, and about oneself. */
export function PlaceExplanation({ place, person }: { readonly place: string; readonly person: string }) {
  const { slug, workspace } = useHere()
  const { data: sum, isError } = useExplanationQuery({ slug, id: place, person })
  if (isError) return <p className="quiet text-sm">Only people who share this place see how it adds up.</p>
  return sum === undefined ? null : <Sum sum={sum} timeZone={workspace.timeZone} />
}
