import { useState } from 'react'
import { useNavigate } from 'react-router'
import type { OfferRequest, ScopeRequest } from '#contract/edit-requests.ts'
import type { OfferPreviewRequest } from '#contract/requests.ts'
import { invitingEdits } from '#contract/inviting.ts'
import type { AddressView } from '#contract/views/onboarding.ts'
import type { Problem } from '#contract/views/problem.ts'
import { useTeamsQuery } from '../../../api/api.ts'
import { useChange } from '../../../api/use-change.ts'
import { counted, peopleWords } from '#core/words/english.ts'
import { useHere } from '../../../api/use-here.ts'
import { Choice } from '../../../ui/Choice.tsx'
import { onSubmit } from '../../../ui/on-submit.ts'
import { ProblemNote } from '../../../ui/ProblemNote.tsx'
import { TextArea } from '../../../ui/TextArea.tsx'
import { Tick } from '../../../ui/Tick.tsx'
import { isInvitable, Judged, useJudged } from './Judged.tsx'
import { OfferPreview, seatsLeft, useOfferView } from './OfferPreview.tsx'
import { emptyOfferOf, type OfferDraft, offerOf } from './offer.ts'
import { OfferForm } from './OfferForm.tsx'
import { PeopleHead } from '../PeopleHead.tsx'
import { useDraft } from '../../../ui/use-draft.ts'

interface Draft {
  readonly text: string
  readonly offer: OfferDraft
  readonly message: string
  readonly isByHand: boolean
  /** Over whom the chosen role is held: everybody, guests, or a team by its id. */
  readonly over: string
}

/** So many edits go in one change set at most. */
const editsAtOnce = 1500

/** Who → what they get → what they will see → sent: all on one screen, nothing before it is seen. */
export function InviteScreen() {
  const { slug, workspace } = useHere()
  const navigate = useNavigate()
  const [draft, setDraft, drop] = useDraft<Draft>(`invite ${slug}`, {
    text: '',
    message: '',
    isByHand: false,
    over: everybody,
    offer: emptyOfferOf(workspace.me.privileges),
  })
  const { text, offer, message, isByHand, over } = draft
  const request = offerOf(offer, workspace.timeZone)
  const { addresses, isCurrent } = useJudged(text, offer.as)
  const good = addresses.filter(isInvitable)
  const { send, problem, sent } = useSending()
  const submit = async () => {
    const sets = good.map((each, index) => editsFor(draft, request, { ...each, person: `new:p${index}` }))
    if (!(await send(sets, isByHand))) return
    drop()
    await navigate(`/at/${slug}/people?status=invited`)
  }
  return (
    <main className="grid min-h-0 grid-rows-[auto_minmax(0,1fr)] px-4 pt-3">
      <PeopleHead />
      <form
        className="min-h-0 max-md:flex max-md:flex-col max-md:gap-6 max-md:pb-6 md:grid max-md:overflow-y-auto md:grid-cols-[minmax(0,1.1fr)_minmax(0,1fr)_minmax(0,1.1fr)]"
        onSubmit={onSubmit(submit)}
      >
        <Who text={text} onText={text => setDraft({ ...draft, text })} addresses={addresses} />
        <section
          aria-label="What they get"
          className="grid content-start gap-4 border-base-300 pb-4 md:min-h-0 md:overflow-y-auto md:border-x md:px-5"
        >
          <h2 className="text-lg font-bold">What they get</h2>
          <OfferForm offer={offer} onOffer={offer => setDraft({ ...draft, offer })} />
          {hasScope(offer) && <RoleScope over={over} onOver={over => setDraft({ ...draft, over })} />}
          <TextArea
            label="Message"
            rows={2}
            maxLength={2000}
            value={message}
            onValue={message => setDraft({ ...draft, message })}
          />
          <Tick isOn={isByHand} onTick={isByHand => setDraft({ ...draft, isByHand })}>
            Do not send mails. I send the links myself.
          </Tick>
        </section>
        <Looked
          request={{ offer: request, scope: scopeOf(offer, over) }}
          count={good.length}
          isJudged={isCurrent}
          sent={sent}
          problem={problem}
        />
      </form>
    </main>
  )
}

const everybody = 'workspace'

/** The default role of members is held over everybody. */
const hasScope = ({ as, role }: OfferDraft): boolean => as === 'member' && role !== ''

function scopeOf(offer: OfferDraft, over: string): ScopeRequest {
  if (!hasScope(offer) || over === everybody) return { over: 'workspace' }
  return over === 'guests' ? { over: 'guests' } : { over: 'team', team: over }
}

interface ScopeProps {
  readonly over: string
  readonly onOver: (over: string) => void
}

function RoleScope({ over, onOver }: ScopeProps) {
  const { slug } = useHere()
  const { data: teams = [] } = useTeamsQuery(slug)
  return (
    <div>
      <Choice
        label="Scope of the role"
        value={over}
        options={[
          { value: everybody, name: 'The whole workspace' },
          { value: 'guests', name: 'Guests' },
          ...teams
            .filter(team => !team.isArchived)
            .map(({ id, name }) => ({ value: id, name: `People of ${name}` })),
        ]}
        onValue={onOver}
      />
      {over !== everybody && (
        <p className="quiet mt-1 text-sm">
          Their privileges hold over these people only. Those that need the whole workspace have no effect.
        </p>
      )}
    </div>
  )
}

/** What invites one of them. */
const editsFor = (
  { offer, message, isByHand, over }: Draft,
  request: OfferRequest,
  { person, mail, name }: Pick<AddressView, 'mail' | 'name'> & { readonly person: string },
) =>
  invitingEdits(request, {
    ...{ person, mail, name, message, mailed: !isByHand },
    welcome: offer.welcome || null,
    scope: scopeOf(offer, over),
  })

interface WhoProps {
  readonly text: string
  readonly onText: (text: string) => void
  readonly addresses: readonly AddressView[]
}

const Who = ({ text, onText, addresses }: WhoProps) => (
  <section aria-label="Who" className="grid content-start gap-2 pb-4 md:min-h-0 md:overflow-y-auto md:pr-5">
    <h2 className="text-lg font-bold">Who</h2>
    <TextArea
      label="Mail addresses"
      rows={5}
      placeholder="One or more addresses, separated by commas or lines"
      value={text}
      onValue={onText}
    />
    <Judged addresses={addresses} onMeant={({ mail, meant }) => onText(text.replace(mail, meant ?? mail))} />
  </section>
)

interface LookedProps {
  readonly request: OfferPreviewRequest
  readonly count: number
  /** Whether the addresses are judged as they stand now. */
  readonly isJudged: boolean
  /** How many were sent so far, while they are. */
  readonly sent: number | undefined
  readonly problem: Problem | undefined
}

/** What they will see, and the act: usable once it is known what it does. */
function Looked({ request, count, isJudged, sent, problem }: LookedProps) {
  const view = useOfferView(request)
  const isAllowed = view?.problem === null && seatsLeft(view.seats, count) >= 0
  const isReady = sent === undefined && isJudged && count > 0 && isAllowed
  return (
    <section
      aria-label="What they will see"
      className="grid md:min-h-0 md:grid-rows-[auto_minmax(0,1fr)_auto] md:pl-5"
    >
      <h2 className="mb-2 text-lg font-bold">What they will see and do</h2>
      <div className="md:min-h-0 md:overflow-y-auto" tabIndex={0} role="region" aria-label="Preview">
        <OfferPreview view={view} count={Math.max(count, 1)} />
      </div>
      <div className="grid gap-2 border-t border-base-content py-3">
        <ProblemNote problem={problem} />
        <button className="btn btn-primary" disabled={!isReady}>
          {sent === undefined ? inviteWords(count) : `${sent} of ${count} invited …`}
        </button>
      </div>
    </section>
  )
}

const inviteWords = (count: number) => (count === 0 ? 'Invite' : `Invite ${peopleWords(count)}`)

type Edits = ReturnType<typeof invitingEdits>

/** Sends invitations in as many change sets as they need, and tells how far it has come. */
function useSending() {
  const { slug } = useHere()
  const { apply, problem } = useChange(slug)
  const [sent, setSent] = useState<number>()
  const send = async (people: readonly Edits[], isByHand: boolean): Promise<boolean> => {
    const count = people.length
    const [first] = people
    const together = Math.max(1, Math.floor(editsAtOnce / (first?.length ?? 1)))
    setSent(0)
    for (let index = 0; index < people.length; index += together) {
      const part = people.slice(index, index + together)
      const confirmation = `${counted(count, 'invitation is', 'invitations are')} ${isByHand ? 'ready to be copied' : 'sent'}.`
      const { applied } = await apply(part.flat(), confirmation)
      if (applied === undefined) {
        setSent(undefined)
        return false
      }
      setSent(index + part.length)
    }
    setSent(undefined)
    return true
  }
  return { send, problem, sent }
}
