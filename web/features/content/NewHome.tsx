import { useState } from 'react'
import { useNavigate } from 'react-router'
import { levelActions } from '#core/levels/level.ts'
import { usePeopleNamesQuery } from '../../api/api.ts'
import { useChange } from '../../api/use-change.ts'
import { useHere } from '../../api/use-here.ts'
import { Choice } from '../../ui/Choice.tsx'
import { ProblemNote } from '../../ui/ProblemNote.tsx'
import { TextField } from '../../ui/TextField.tsx'
import { onSubmit } from '../../ui/on-submit.ts'

/** A home that several teams work in, with its first steward. */
export function NewHome() {
  const { slug, workspace } = useHere()
  const { data: people = [] } = usePeopleNamesQuery(slug)
  const { apply, problem, isBusy } = useChange(slug)
  const [name, setName] = useState('')
  const [steward, setSteward] = useState(workspace.me.id)
  const navigate = useNavigate()
  const submit = async () => {
    const gives = levelActions('Steward')
    const grant = {
      kind: 'grant.add',
      node: 'new:home',
      principal: `person:${steward}`,
      gives,
      from: null,
      until: null,
    } as const
    const { applied } = await apply(
      [{ kind: 'home.create', node: 'new:home', name: name.trim() }, grant],
      `The shared home ${name} is created.`,
    )
    const made = applied?.made['new:home']
    if (made !== undefined)
      await navigate(steward === workspace.me.id ? `/at/${slug}/content/${made}` : `/at/${slug}/content`)
  }
  return (
    <main className="max-w-lg px-6 py-6">
      <h1 className="mb-2 text-xl font-bold">Create shared home</h1>
      <p className="mb-4">
        A shared home is for content of several teams. At first only its steward has access and can share it
        with others.
      </p>
      <form className="grid gap-4" onSubmit={onSubmit(submit)}>
        <TextField label="Name" required maxLength={200} value={name} onValue={setName} />
        <Choice
          label="Steward, who shares it with others"
          value={steward}
          options={people
            .filter(person => person.kind === 'member' && person.status === 'active')
            .map(({ id, name }) => ({ value: id, name }))}
          onValue={setSteward}
        />
        <ProblemNote problem={problem} />
        <button className="btn btn-primary justify-self-start" disabled={isBusy || name.trim() === ''}>
          Create shared home
        </button>
      </form>
    </main>
  )
}
