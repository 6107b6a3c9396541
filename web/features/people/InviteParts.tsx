import type { Privilege } from '#core/levels/privilege.ts'
import type { RoleView, TeamView } from '#contract/views.ts'
import { TextField } from '../../ui/TextField.tsx'

/** What everybody in one sending is offered. */
export interface Offer {
  readonly as: 'member' | 'guest'
  readonly role: string | null
  readonly teams: readonly string[]
  /** The last day, as YYYY-MM-DD; empty for no end. */
  readonly through: string
  readonly message: string
}

interface Part {
  readonly offer: Offer
  readonly onOffer: (offer: Offer) => void
}

const kinds = [
  { as: 'member', word: 'Members', needs: 'invite members' },
  { as: 'guest', word: 'Guests', needs: 'invite guests' },
] as const

export function InviteAs({
  offer,
  onOffer,
  privileges,
  roles,
}: Part & { readonly privileges: readonly Privilege[]; readonly roles: readonly RoleView[] }) {
  return (
    <fieldset>
      <legend className="label-line">They come as</legend>
      <div className="flex items-center gap-5">
        {kinds.map(({ as, word, needs }) => (
          <label key={as} className="flex items-center gap-2">
            <input
              type="radio"
              className="radio radio-sm border-base-content/60"
              name="as"
              checked={offer.as === as}
              disabled={!privileges.includes(needs)}
              onChange={() => onOffer({ ...offer, as, teams: [] })}
            />
            {word}
          </label>
        ))}
        {offer.as === 'member' && roles.length > 0 && (
          <select
            className="choice ml-auto w-40"
            aria-label="Role"
            value={offer.role ?? ''}
            onChange={event => onOffer({ ...offer, role: event.target.value || null })}
          >
            <option value="">Member</option>
            {roles
              .filter(role => role.id !== 'role-member')
              .map(role => (
                <option key={role.id} value={role.id}>
                  {role.name}
                </option>
              ))}
          </select>
        )}
      </div>
      {offer.role !== null && offer.as === 'member' && (
        <p className="quiet mt-1 text-sm">{roles.find(role => role.id === offer.role)?.note}</p>
      )}
    </fieldset>
  )
}

export function InviteTeams({ offer, onOffer, teams }: Part & { readonly teams: readonly TeamView[] }) {
  if (teams.length === 0) return null
  const tick = (team: string, isOn: boolean) =>
    onOffer({ ...offer, teams: isOn ? [...offer.teams, team] : offer.teams.filter(each => each !== team) })
  return (
    <fieldset>
      <legend className="label-line">Teams</legend>
      <div className="grid grid-cols-2 gap-x-4 gap-y-1">
        {teams.map(team => (
          <label key={team.id} className="flex items-center gap-2">
            <input
              type="checkbox"
              className="checkbox checkbox-sm border-base-content/60"
              checked={offer.teams.includes(team.id)}
              onChange={event => tick(team.id, event.target.checked)}
            />
            {team.name}
          </label>
        ))}
      </div>
    </fieldset>
  )
}

export const InviteMore = ({ offer, onOffer }: Part) => (
  <>
    <TextField
      label="Their time here ends after"
      type="date"
      hint="Leave empty for no end."
      value={offer.through}
      onValue={through => onOffer({ ...offer, through })}
    />
    <label>
      <span className="label-line">A word to them</span>
      <textarea
        className="area h-16"
        value={offer.message}
        onChange={event => onOffer({ ...offer, message: event.target.value })}
      />
    </label>
  </>
)
