import type { PersonView } from '#contract/views.ts'
import { ChoiceRow } from '../../ui/ChoiceRow.tsx'
import { Day, Through } from '../../ui/dates.tsx'

interface Props {
  readonly people: readonly PersonView[]
  readonly chosen: string | undefined
  readonly onChoose: (id: string) => void
  readonly timeZone: string
}

export const PeopleTable = ({ people, chosen, onChoose, timeZone }: Props) => (
  <table className="sheet">
    <thead>
      <tr>
        <th scope="col">Name</th>
        <th scope="col">Address</th>
        <th scope="col">Role</th>
        <th scope="col">Teams</th>
        <th scope="col">Here</th>
      </tr>
    </thead>
    <tbody>
      {people.map(person => (
        <ChoiceRow
          key={person.id}
          name={person.name}
          isChosen={person.id === chosen}
          onChoose={() => onChoose(person.id)}
        >
          <td className="max-w-56 truncate" title={person.mail}>
            {person.mail}
          </td>
          <td>{person.roles.map(each => each.name).join(', ')}</td>
          <td>{teamWords(person)}</td>
          <td className="whitespace-nowrap">
            <Presence person={person} timeZone={timeZone} />
          </td>
        </ChoiceRow>
      ))}
    </tbody>
  </table>
)

/** A team that all members are in says nothing about one of them, unless they lead it. */
const teamWords = ({ teams }: PersonView): string =>
  teams
    .filter(team => team.lead || !team.isForAll)
    .map(team => (team.lead ? `${team.name} (lead)` : team.name))
    .join(', ')

/** Since when, until when, or that they were only invited. */
export function Presence({ person, timeZone }: { readonly person: PersonView; readonly timeZone: string }) {
  if (person.invitation !== null)
    return (
      <span className="text-warning">
        invited <Day at={person.invitation.at} />
      </span>
    )
  if (person.status === 'suspended') return <span className="text-error">suspended</span>
  if (person.until !== null) return <Through until={person.until} timeZone={timeZone} />
  return (
    <span className="quiet">
      {person.joinedAt === null ? (
        person.status
      ) : (
        <>
          since <Day at={person.joinedAt} />
        </>
      )}
    </span>
  )
}
