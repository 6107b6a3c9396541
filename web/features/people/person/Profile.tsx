import { useState } from 'react'
import type { PersonDetailView } from '#contract/views/people.ts'
import { useChange } from '../../../api/use-change.ts'
import { useChosenPicture } from '../../../api/use-chosen-picture.ts'
import { useHere } from '../../../api/use-here.ts'
import { ChoosePicture } from '../../../ui/ChoosePicture.tsx'
import { OpenedForm } from '../../../ui/OpenedForm.tsx'
import { ProblemNote } from '../../../ui/ProblemNote.tsx'
import { TextField } from '../../../ui/TextField.tsx'
import { ActOrLeave } from '../../../ui/ActOrLeave.tsx'

interface Props {
  readonly person: Pick<
    PersonDetailView,
    'id' | 'name' | 'handle' | 'title' | 'department' | 'country' | 'picture' | 'kind'
  >
  readonly onDone: () => void
}

/** How somebody is called and found: by themselves, or by who keeps profiles. */
export function Profile({ person, onDone }: Props) {
  const { slug } = useHere()
  const { apply, problem, isBusy } = useChange(slug)
  const { name, handle, title, department, country, picture } = person
  const [fields, setFields] = useState({ name, handle: handle ?? '', title, department, country })
  const chosen = useChosenPicture(slug, picture)
  const field = (key: keyof typeof fields) => ({
    value: fields[key],
    onValue: (value: string) => setFields({ ...fields, [key]: value }),
  })
  const submit = async () => {
    const { applied } = await apply(
      [
        {
          kind: 'person.describe',
          person: person.id,
          ...fields,
          handle: fields.handle === '' ? null : fields.handle,
          picture: chosen.id,
        },
      ],
      `The profile of ${fields.name} is changed.`,
    )
    if (applied !== undefined) onDone()
  }
  return (
    <OpenedForm label="Profile" className="grid gap-3" onAct={submit} onLeave={onDone}>
      <ChoosePicture name={fields.name} {...chosen} />
      <TextField label="Name" required maxLength={200} {...field('name')} />
      <TextField
        label="Handle"
        maxLength={30}
        hint="Lower-case letters, digits and dots. Earlier handles still lead to this person."
        {...field('handle')}
      />
      <TextField label="Title" maxLength={200} {...field('title')} />
      <TextField
        label={person.kind === 'guest' ? 'Organisation' : 'Department'}
        maxLength={200}
        {...field('department')}
      />
      <TextField label="Country" maxLength={100} autoComplete="country-name" {...field('country')} />
      <ProblemNote problem={problem} />
      <ActOrLeave label="Save profile" isDisabled={isBusy} onLeave={onDone} />
    </OpenedForm>
  )
}
