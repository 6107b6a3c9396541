import { useState } from 'react'
import { Link } from 'react-router'
import type { PersonView } from '#contract/views/people.ts'
import { usePeopleNamesQuery } from '../../../api/api.ts'
import { useChange } from '../../../api/use-change.ts'
import { useHere } from '../../../api/use-here.ts'
import { Combobox } from '../../../ui/Combobox.tsx'
import { ProblemNote } from '../../../ui/ProblemNote.tsx'

/** The contact of a guest, and the way to hand that on. */
export function Contact({ person }: { readonly person: PersonView }) {
  const { slug, workspace } = useHere()
  const [isOpen, setOpen] = useState(false)
  const { contact } = person
  const mayChange =
    person.status !== 'invited' &&
    (person.managed?.may.includes('contact') === true || contact?.id === workspace.me.id)
  return (
    <>
      {contact === null ? (
        <span className="text-warning">nobody</span>
      ) : (
        <Link className="link" to={`/at/${slug}/people/${contact.id}`}>
          {contact.name}
        </Link>
      )}
      {mayChange && (
        <button
          type="button"
          className="btn-inline ml-3 text-sm"
          aria-expanded={isOpen}
          onClick={() => setOpen(!isOpen)}
        >
          Change
        </button>
      )}
      {isOpen && <Choosing person={person} onDone={() => setOpen(false)} />}
    </>
  )
}

function Choosing({ person, onDone }: { readonly person: PersonView; readonly onDone: () => void }) {
  const { slug } = useHere()
  const { data: names = [] } = usePeopleNamesQuery(slug)
  const { apply, problem } = useChange(slug)
  const members = names.filter(each => each.kind === 'member' && each.status === 'active')
  const choose = async (contact: string, name: string) => {
    const { applied } = await apply(
      [{ kind: 'person.contact', person: person.id, contact }],
      `The contact of ${person.name} is now ${name}.`,
    )
    if (applied !== undefined) onDone()
  }
  return (
    <div className="mt-1">
      <Combobox
        label={`Contact of ${person.name}`}
        placeholder="Name of a member"
        options={members.map(({ id, name, mail }) => ({ value: id, name, note: mail }))}
        onChoose={({ value, name }) => void choose(value, name)}
      />
      <ProblemNote problem={problem} />
    </div>
  )
}
