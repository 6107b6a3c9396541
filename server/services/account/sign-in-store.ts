import session from 'express-session'
import { endSignIns, type HeldSignIn, keepSignIn, type Sessions, signInHeld } from '../../store/sessions.ts'

/** Sign-ins in their database; those in use are answered from memory, so that no request waits for a file to learn who asks. */
export class SignInStore extends session.Store {
  readonly #sessions: Sessions

  constructor(sessions: Sessions) {
    super()
    this.#sessions = sessions
  }

  override get(sid: string, done: (error: unknown, found?: session.SessionData | null) => void): void {
    const answer = (found: HeldSignIn | undefined) => {
      const isOver = found === undefined || found.until <= Date.now()
      done(null, isOver ? null : (JSON.parse(found.data) as session.SessionData))
    }
    const held = this.#sessions.held.get(sid)
    if (held !== undefined) answer(held)
    else signInHeld(this.#sessions, sid).then(answer, done)
  }

  override set(sid: string, data: session.SessionData, done: (error?: unknown) => void = () => {}): void {
    const until = Date.now() + (data.cookie.maxAge ?? 0)
    const row = { sid, until, data: JSON.stringify(data), ...whoseIs(data) }
    keepSignIn(this.#sessions, row).then(() => done(), done)
  }

  override destroy(sid: string, done: (error?: unknown) => void = () => {}): void {
    endSignIns(this.#sessions, [sid]).then(() => done(), done)
  }
}

/** A session that nobody has signed in to yet is nobody's. */
const whoseIs = ({ account, agent, madeAt }: Partial<session.SessionData>) => ({
  account: account ?? null,
  agent: agent ?? null,
  madeAt: madeAt ?? null,
})
