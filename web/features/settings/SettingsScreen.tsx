import { NavLink, useParams } from 'react-router'
import type { SettingsView } from '#contract/views/workspace.ts'
import { Link } from 'react-router'
import { useSettingsQuery } from '../../api/people.ts'
import { useHere } from '../../api/use-here.ts'
import { NotYet } from '../../ui/NotYet.tsx'
import { ComingIn } from './ComingIn.tsx'
import { Files } from './Files.tsx'
import { Guests } from './Guests.tsx'
import { Owners } from './Owners.tsx'
import { Publishing } from './Publishing.tsx'
import { Seats } from './Seats.tsx'
import { SignInRules } from './SignInRules.tsx'
import { Storage } from './Storage.tsx'
import { TheWorkspace } from './TheWorkspace.tsx'

interface Part {
  readonly key: string
  readonly word: string
  readonly needs: 'edit settings' | 'security' | 'view seats' | 'see storage' | 'own'
  readonly Form: () => React.ReactNode
  /** It holds tables. */
  readonly isWide?: true
}

/** A part that shows settings, once they are there. */
const withSettings = (Form: (props: { readonly settings: SettingsView }) => React.ReactNode) =>
  function WithSettings() {
    const { slug } = useHere()
    const { data: settings } = useSettingsQuery(slug)
    return settings === undefined ? null : <Form settings={settings} />
  }

const parts: readonly Part[] = [
  { key: 'workspace', word: 'General', needs: 'edit settings', Form: withSettings(TheWorkspace) },
  { key: 'coming-in', word: 'Invitations', needs: 'edit settings', Form: withSettings(ComingIn) },
  { key: 'sign-in', word: 'Sign-in security', needs: 'security', Form: withSettings(SignInRules) },
  { key: 'guests', word: 'Guests and mail domains', needs: 'security', Form: withSettings(Guests) },
  { key: 'publishing', word: 'Publishing and previews', needs: 'security', Form: withSettings(Publishing) },
  { key: 'files', word: 'Files', needs: 'edit settings', Form: withSettings(Files) },
  { key: 'storage', word: 'Storage', needs: 'see storage', Form: Storage, isWide: true },
  { key: 'seats', word: 'Seats', needs: 'view seats', Form: Seats },
  { key: 'owners', word: 'Owners', needs: 'own', Form: Owners },
]

/** The settings: each says what it does and to whom, and shows its effect where it changes access. */
export function SettingsScreen() {
  const { slug, workspace } = useHere()
  const { part } = useParams()
  const offered = parts.filter(({ needs }) => workspace.me.privileges.includes(needs))
  const chosen = offered.find(({ key }) => key === part) ?? offered[0]
  if (chosen === undefined) return <NotYet isAbsent />
  const { Form, isWide } = chosen
  return (
    <main className="grid min-h-0 max-md:content-start max-md:overflow-y-auto md:grid-cols-[15rem_minmax(0,1fr)]">
      <div className="border-base-300 px-4 pt-3 md:border-r">
        <h1 className="mb-3 text-xl font-bold">Settings</h1>
        <nav aria-label="Settings" className="flex flex-wrap gap-x-5 md:grid">
          {offered.map(({ key, word }) => (
            <NavLink
              key={key}
              to={`/at/${slug}/settings/${key}`}
              className={`border-base-300 py-2 md:border-t md:pl-3 ${key === chosen.key ? 'font-bold max-md:underline md:shadow-[inset_3px_0_0_var(--color-primary)]' : ''}`}
            >
              {word}
            </NavLink>
          ))}
        </nav>
        <p className="mt-5 text-sm">
          <Link className="link" to={`/at/${slug}/oversight/history?category=workspace`}>
            History of the settings
          </Link>
        </p>
      </div>
      <div className="min-h-0 px-4 pt-3 pb-8 md:overflow-y-auto md:px-8">
        <h2 className="mb-4 text-lg font-bold">{chosen.word}</h2>
        <div className={isWide === true ? 'max-w-6xl' : 'max-w-2xl'}>
          <Form key={chosen.key} />
        </div>
      </div>
    </main>
  )
}
