import { useState } from 'react'
import type { EditRequest } from '#contract/edit-requests.ts'
import { usePeopleNamesQuery } from '../../../api/api.ts'
import { useDecision } from '../../../api/use-decision.ts'
import { useHere } from '../../../api/use-here.ts'
import { Combobox } from '../../../ui/Combobox.tsx'
import { Decision } from '../../../ui/Decision.tsx'

/** Where nobody can share a place any more: whoever may recover access makes somebody its steward. */
export function Recover({ place }: { readonly place: string }) {
  const { workspace } = useHere()
  const [isOpen, setOpen] = useState(false)
  if (!workspace.me.privileges.includes('recover access')) return null
  return (
    <section aria-label="Recover access" className="mb-5 max-w-3xl border-l-4 border-warning pl-3">
      <p>Nobody can share this place any more: it has no active steward.</p>
      {isOpen ? (
        <Form place={place} onDone={() => setOpen(false)} />
      ) : (
        <button type="button" className="btn-inline mt-1 text-sm" onClick={() => setOpen(true)}>
          Recover access …
        </button>
      )}
    </section>
  )
}

function Form({ place, onDone }: { readonly place: string; readonly onDone: () => void }) {
  const { slug, workspace } = useHere()
  const { data: people = [] } = usePeopleNamesQuery(slug)
  const [taker, setTaker] = useState({ value: workspace.me.id, name: workspace.me.name })
  const edit: EditRequest = { kind: 'access.recover', node: place, taker: taker.value, limits: [] }
  const decision = useDecision([edit], `${taker.name} is now a steward of the place.`, onDone)
  const members = people.filter(each => each.kind === 'member' && each.status === 'active')
  return (
    <Decision label={`Make ${taker.name} steward`} onLeave={onDone} {...decision}>
      <p className="text-sm">All owners are told, and it stands in the history with its reason.</p>
      <div>
        <span className="label-line">Steward</span>
        <Combobox
          label="Steward"
          placeholder={`${taker.name}, or another member`}
          options={members.map(({ id, name, mail }) => ({ value: id, name, note: mail }))}
          onChoose={setTaker}
        />
      </div>
    </Decision>
  )
}
