import { useState } from 'react'
import { endOfDay } from '#contract/dates.ts'
import type { EditRequest } from '#contract/requests.ts'
import type { PersonView, TeamView } from '#contract/views.ts'
import { useTeamsQuery } from '../../api/api.ts'
import { useChange } from '../../api/use-change.ts'
import { useHere } from '../../api/use-here.ts'
import { Panel } from '../../ui/Panel.tsx'
import { ProblemNote } from '../../ui/ProblemNote.tsx'
import { type Address, readAddresses } from './addresses.ts'
import { InviteAs, InviteMore, InviteTeams, type Offer } from './InviteParts.tsx'
import { onSubmit } from '../../ui/on-submit.ts'

const nothing: Offer = { as: 'member', role: null, teams: [], through: '', message: '' }

/** Who → role → teams → looked through → sent, on one panel: nothing is sent before it is seen. */
export function Invite({
  people,
  onClose,
}: {
  readonly people: readonly PersonView[]
  readonly onClose: () => void
}) {
  const { slug, workspace } = useHere()
  const { data: teams = [] } = useTeamsQuery(slug)
  const [text, setText] = useState('')
  const [offer, setOffer] = useState<Offer>(() => ({
    ...nothing,
    as: workspace.me.privileges.includes('invite members') ? 'member' : 'guest',
  }))
  const { apply, problem, isBusy } = useChange(slug)
  const addresses = readAddresses(text, people)
  const good = addresses.filter(address => address.verdict === 'new')
  const submit = async () => {
    const edits = good.flatMap((address, index) =>
      editsFor(address, { index, offer, timeZone: workspace.timeZone }),
    )
    const { applied } = await apply(edits, `${invitations(good.length)} on the way.`)
    if (applied !== undefined) onClose()
  }
  return (
    <Panel title="Invite people" onClose={onClose}>
      <form className="grid gap-4" onSubmit={onSubmit(submit)}>
        <label>
          <span className="label-line">Mail addresses</span>
          <textarea
            className="area h-20"
            placeholder="One or many: with commas, in lines, Name <address>"
            value={text}
            onChange={event => setText(event.target.value)}
          />
        </label>
        <InviteAs
          offer={offer}
          onOffer={setOffer}
          privileges={workspace.me.privileges}
          roles={workspace.roles}
        />
        <InviteTeams offer={offer} onOffer={setOffer} teams={teams.filter(team => mayOffer(team, offer))} />
        <InviteMore offer={offer} onOffer={setOffer} />
        <LookThrough addresses={addresses} offer={offer} teams={teams} />
        <ProblemNote problem={problem} />
        <button className="btn btn-primary" disabled={isBusy || good.length === 0}>
          {good.length === 0
            ? 'Invite'
            : `Invite ${good.length === 1 ? '1 person' : `${good.length} people`}`}
        </button>
      </form>
    </Panel>
  )
}

const invitations = (count: number) => (count === 1 ? 'One invitation is' : `${count} invitations are`)

const mayOffer = (team: TeamView, { as }: Offer) => team.mayManage && (as === 'member' || team.welcomesGuests)

interface Setting {
  readonly index: number
  readonly offer: Offer
  readonly timeZone: string
}

function editsFor({ mail, name }: Address, { index, offer, timeZone }: Setting): EditRequest[] {
  const person = `new:${index}`
  const until = offer.through === '' ? null : endOfDay(offer.through, timeZone)
  const role = offer.as === 'guest' ? null : offer.role
  return [
    {
      kind: 'person.invite',
      person,
      mail,
      name,
      as: offer.as,
      role,
      scope: { over: 'workspace' },
      until,
      message: offer.message,
    },
    ...offer.teams.map(
      team => ({ kind: 'member.add', team, person, lead: false, from: null, until: null }) as const,
    ),
  ]
}

interface Looked {
  readonly addresses: readonly Address[]
  readonly offer: Offer
  readonly teams: readonly TeamView[]
}

/** What will happen to each address, and what they will be able to do. */
function LookThrough({ addresses, offer, teams }: Looked) {
  if (addresses.length === 0) return null
  const names = teams.filter(team => offer.teams.includes(team.id)).map(team => team.name)
  return (
    <section aria-label="Look through" className="border-t border-base-content pt-2">
      <ul className="mb-2">
        {addresses.map((address, index) => (
          <li key={index} className="flex justify-between gap-3 border-b border-base-300 py-1">
            <span className="truncate">{address.name || address.mail}</span>
            <span className={`shrink-0 text-sm ${address.verdict === 'new' ? 'quiet' : 'text-error'}`}>
              {address.verdict}
            </span>
          </li>
        ))}
      </ul>
      <p className="text-sm">
        {offer.as === 'guest'
          ? 'As guests they see only what is opened for them by name'
          : 'As members they see colleagues, listed teams and what is open to all members'}
        {names.length > 0 &&
          `, and what the ${names.length === 1 ? 'team' : 'teams'} ${names.join(', ')} may open`}
        .
      </p>
    </section>
  )
}
