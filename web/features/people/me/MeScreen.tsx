import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import type { MyAccessView } from '#contract/views/people.ts'
import { useMyAccessQuery, usePersonQuery } from '../../../api/people.ts'
import { api } from '../../../api/api.ts'
import { useAppDispatch } from '../../../store/store.ts'
import { useHere } from '../../../api/use-here.ts'
import { Day, Through } from '../../../ui/dates.tsx'
import { Picture, pictureAddress } from '../../../ui/Picture.tsx'
import { Reached } from '../../../ui/Reached.tsx'
import { When } from '../../../ui/When.tsx'
import { Offboarding } from '../person/Offboarding.tsx'
import { Handovers, Looks, May } from './MyRoles.tsx'
import { PlaceExplanation } from '../person/PlaceExplanation.tsx'
import { Profile } from '../person/Profile.tsx'

/** Oneself in this workspace: how one is called, and all that one may do, with where each piece comes from. */
export function MeScreen() {
  const { slug, workspace } = useHere()
  const { data: access } = useMyAccessQuery(slug)
  if (access === undefined) return null
  return (
    <main className="min-h-0 overflow-y-auto px-6 py-4">
      <h1 className="mb-4 text-xl font-bold">
        {workspace.me.name} in {workspace.name}
      </h1>
      <div className="grid gap-x-10 gap-y-6 lg:grid-cols-[22rem_minmax(0,1fr)]">
        <div>
          <Handovers handovers={access.handovers} />
          <Mine />
          <Held access={access} />
          <Looks viewingSessions={access.viewingSessions} />
          <LeaveWorkspace />
        </div>
        <section aria-label="My places">
          <h2 className="mb-1 text-lg font-bold">My places</h2>
          <p className="quiet mb-2 text-sm">Each place where your access differs from the place above it.</p>
          {access.places.length === 0 && <p>Nothing is shared with you yet.</p>}
          <Reached
            label="My places"
            places={access.places}
            nameOf={place => (
              <Link className="link" to={`/at/${slug}/content/${place.id}`}>
                {place.name}
              </Link>
            )}
            sumOf={place => <PlaceExplanation place={place.id} person={workspace.me.id} />}
          />
        </section>
      </div>
    </main>
  )
}

function Mine() {
  const { slug, workspace } = useHere()
  const { data: me } = usePersonQuery({ slug, id: workspace.me.id })
  const [isEditing, setEditing] = useState(false)
  if (me === undefined) return null
  if (isEditing) return <Profile person={me} onDone={() => setEditing(false)} />
  return (
    <section aria-label="My profile" className="flex gap-4">
      <Picture name={me.name} src={pictureAddress(slug, me.picture)} size={60} />
      <div className="min-w-0">
        <p className="font-semibold">
          {me.name}
          {me.handle !== null && <span className="quiet font-normal"> @{me.handle}</span>}
        </p>
        <p>
          {[...new Set([me.title, me.department, me.country])].filter(Boolean).join(' · ') || (
            <span className="quiet">No title yet</span>
          )}
        </p>
        <p className="quiet break-words">{me.mail}</p>
        <p className="mt-1 flex flex-wrap gap-x-4 gap-y-1.5 text-sm">
          <button type="button" className="btn-inline" onClick={() => setEditing(true)}>
            Edit profile
          </button>
          <Link className="link" to="/account">
            Account and sign-in
          </Link>
          <Link className="link" to={`/at/${slug}/notifications`}>
            Notification settings
          </Link>
        </p>
      </div>
    </section>
  )
}

function Held({ access }: { readonly access: MyAccessView }) {
  const { slug, workspace } = useHere()
  const { roles, teams, contact, from, until } = access
  return (
    <>
      <section aria-label="My roles" className="mt-6">
        <div className="mb-1 flex items-baseline justify-between">
          <h2 className="text-lg font-bold">My roles</h2>
          {workspace.me.kind === 'member' && (
            <Link className="link text-sm" to={`/at/${slug}/roles/requests`}>
              Request a role
            </Link>
          )}
        </div>
        {roles.map(role => (
          <div key={role.id} className="border-t border-base-300 py-2">
            <p className="font-semibold">
              {role.name}
              {role.over !== null && <span className="quiet font-normal"> over {role.over}</span>}
              <span className="font-normal">
                <When from={role.from} until={role.until} timeZone={workspace.timeZone} />
              </span>
            </p>
            <May privileges={role.privileges} asleep={role.asleep} />
          </div>
        ))}
      </section>
      <section aria-label="My teams" className="mt-4">
        <h2 className="mb-1 text-lg font-bold">My teams</h2>
        {teams.length === 0 && <p className="quiet">You are in no team.</p>}
        {teams.map(team => (
          <p key={team.id} className="border-t border-base-300 py-1">
            <Link className="link" to={`/at/${slug}/teams/${team.id}`}>
              {team.name}
            </Link>
            {team.lead && ' (lead)'}
            {team.isForAll && <span className="quiet"> · all members</span>}
          </p>
        ))}
      </section>
      {(contact !== null || until !== null || from !== null) && (
        <section aria-label="My access" className="mt-4">
          <h2 className="mb-1 text-lg font-bold">My access</h2>
          {contact !== null && <p>Your contact: {contact.name}</p>}
          {from !== null && (
            <p>
              Started on <Day at={from} timeZone={workspace.timeZone} />.
            </p>
          )}
          {until !== null && (
            <p>
              Lasts <Through until={until} timeZone={workspace.timeZone} />.
            </p>
          )}
        </section>
      )}
    </>
  )
}

/** Leaving the workspace is an act of its own: leaving a team or a place is done there. */
function LeaveWorkspace() {
  const { slug, workspace } = useHere()
  const { data: me } = usePersonQuery({ slug, id: workspace.me.id })
  const [isOpen, setOpen] = useState(false)
  const dispatch = useAppDispatch()
  const navigate = useNavigate()
  const onDone = () => {
    dispatch(api.util.invalidateTags(['session']))
    void navigate('/workspaces')
  }
  if (me === undefined) return null
  return (
    <section aria-label="Leave the workspace" className="mt-6 border-t border-base-content pt-3">
      {isOpen ? (
        <Offboarding person={me} onDone={onDone} onLeave={() => setOpen(false)} />
      ) : (
        <button type="button" className="btn-plain" onClick={() => setOpen(true)}>
          Leave {workspace.name} …
        </button>
      )}
    </section>
  )
}
