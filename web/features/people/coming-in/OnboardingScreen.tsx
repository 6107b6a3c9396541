import { useNavigate, useParams } from 'react-router'
import type { JoinLinkView, WelcomeSetView } from '#contract/views/onboarding.ts'
import { useOnboardingQuery } from '../../../api/people.ts'
import { counted, listed } from '#core/words/english.ts'
import { useHere } from '../../../api/use-here.ts'
import { ChoiceRow } from '../../../ui/ChoiceRow.tsx'
import { Through } from '../../../ui/dates.tsx'
import { JoinLinkPanel, NewJoinLink } from './JoinLinkPanel.tsx'
import { PeopleHead } from '../PeopleHead.tsx'
import { AbsentPanel } from '../../../ui/AbsentPanel.tsx'
import { NotYet } from '../../../ui/NotYet.tsx'
import { NewWelcomeSet, WelcomeSetPanel } from './WelcomeSetPanel.tsx'

/** How people come in besides an invitation that is written for them: welcome sets, and links to be passed on. */
export function OnboardingScreen() {
  const { slug } = useHere()
  const { id } = useParams()
  const navigate = useNavigate()
  const { data, error } = useOnboardingQuery(slug)
  const open = (target = '') =>
    void navigate(`/at/${slug}/people/onboarding${target === '' ? '' : `/${target}`}`)
  if (data === undefined) return <NotYet error={error} />
  const set = data.welcomeSets.find(each => each.id === id)
  const link = data.joinLinks.find(each => each.id === id)
  const isNew = id === 'new-set' || id === 'new-link'
  const isAbsent = id !== undefined && !isNew && set === undefined && link === undefined
  return (
    <div className="beside [--panel:29rem]">
      <main className="min-h-0 overflow-y-auto px-4 pt-3 pb-6">
        <PeopleHead />
        <Heading word="Welcome sets" label="Create welcome set …" onAct={() => open('new-set')}>
          A welcome set is what a group of new people gets: role, teams, places and dates. Use it in
          invitations, join links and imports.
        </Heading>
        <WelcomeSets sets={data.welcomeSets} chosen={id} onChoose={open} />
        <Heading word="Join links" label="Create join link …" onAct={() => open('new-link')}>
          Anybody with the link can join with their own address. The link gives only what its creator may give
          at that time.
        </Heading>
        <JoinLinks links={data.joinLinks} chosen={id} onChoose={open} />
      </main>
      {set !== undefined && <WelcomeSetPanel key={set.id} set={set} onClose={() => open()} />}
      {link !== undefined && <JoinLinkPanel key={link.id} link={link} onClose={() => open()} />}
      {isAbsent && <AbsentPanel what="Join link or welcome set" onClose={() => open()} />}
      {id === 'new-set' && <NewWelcomeSet onClose={() => open()} onMade={open} />}
      {id === 'new-link' && <NewJoinLink onClose={() => open()} onMade={open} />}
    </div>
  )
}

interface HeadingProps {
  readonly word: string
  readonly label: string
  readonly onAct: () => void
  readonly children: string
}

const Heading = ({ word, label, onAct, children }: HeadingProps) => (
  <div className="mt-4 mb-1 flex items-end justify-between gap-4">
    <div>
      <h2 className="text-lg font-bold">{word}</h2>
      <p className="quiet text-sm">{children}</p>
    </div>
    <button type="button" className="btn-plain shrink-0" onClick={onAct}>
      {label}
    </button>
  </div>
)

interface Choosing {
  readonly chosen: string | undefined
  readonly onChoose: (id: string) => void
}

const kindWords = { member: 'members', guest: 'guests' } as const

function WelcomeSets({ sets, chosen, onChoose }: Choosing & { readonly sets: readonly WelcomeSetView[] }) {
  const { timeZone } = useHere().workspace
  if (sets.length === 0)
    return (
      <p className="py-3">
        No welcome sets yet. With a welcome set you do not have to choose the same things each time.
      </p>
    )
  return (
    <table className="sheet">
      <thead>
        <tr>
          <th scope="col">Name</th>
          <th scope="col">For</th>
          <th scope="col">Gives</th>
          <th scope="col">Access</th>
          <th scope="col">In use</th>
        </tr>
      </thead>
      <tbody>
        {sets.map(({ id, name, note, offer, invited, links }) => (
          <ChoiceRow key={id} name={name} isChosen={id === chosen} onChoose={() => onChoose(id)}>
            <td>
              {kindWords[offer.as]}
              {note !== '' && <span className="quiet block text-sm">{note}</span>}
            </td>
            <td>
              {listedOrNothing(
                countWords(offer.teams.length, 'team'),
                countWords(offer.places.length, 'place'),
              )}
            </td>
            <td>{offer.until === null ? 'no end' : <Through until={offer.until} timeZone={timeZone} />}</td>
            <td>
              {listedOrNothing(
                invited.length === 0 ? '' : `${invited.length} invited`,
                countWords(links, 'link'),
              )}
            </td>
          </ChoiceRow>
        ))}
      </tbody>
    </table>
  )
}

const countWords = (count: number, word: string) => (count === 0 ? '' : counted(count, word, `${word}s`))

const listedOrNothing = (...words: readonly string[]) => listed(words.filter(Boolean)) || 'nothing'

function JoinLinks({ links, chosen, onChoose }: Choosing & { readonly links: readonly JoinLinkView[] }) {
  const { timeZone } = useHere().workspace
  if (links.length === 0) return <p className="py-3">No join links. People join only by invitation.</p>
  return (
    <table className="sheet">
      <thead>
        <tr>
          <th scope="col">Name</th>
          <th scope="col">Created by</th>
          <th scope="col">Addresses</th>
          <th scope="col">Joined</th>
          <th scope="col">Status</th>
        </tr>
      </thead>
      <tbody>
        {links.map(({ id, name, by, domains, used, most, until, isOpen, letsIn }) => (
          <ChoiceRow key={id} name={name} isChosen={id === chosen} onChoose={() => onChoose(id)}>
            <td>{by}</td>
            <td>{domains.length === 0 ? 'any' : domains.join(', ')}</td>
            <td>{most === null ? used : `${used} of ${most}`}</td>
            <td>
              {letsIn ? (
                <Through until={until} timeZone={timeZone} />
              ) : (
                <span className="text-warning">{isOpen ? 'cannot be used' : 'ended'}</span>
              )}
            </td>
          </ChoiceRow>
        ))}
      </tbody>
    </table>
  )
}
