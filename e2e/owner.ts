import { demoPassword } from '#demo/scenario/people.ts'
import { startDemo } from './server.ts'
import { Visitor } from './visitor.ts'

/** The demo with its owner signed in; others arrive as they are wanted. */
export interface OwnerOfDemo {
  readonly owner: Visitor
  /** Somebody else of the demo, signed in at a browser of their own. */
  readonly welcome: (mail: string) => Promise<Visitor>
  /** Somebody at a browser of their own who has not signed in. */
  readonly arrive: () => Promise<Visitor>
  /** Closes every browser and stops the server. */
  readonly leave: () => Promise<void>
}

export async function ownerOfDemo(): Promise<OwnerOfDemo> {
  const server = await startDemo()
  const visitors: Visitor[] = []
  const arrive = async () => {
    const visitor = await Visitor.arrive(server.address)
    visitors.push(visitor)
    return visitor
  }
  const welcome = async (mail: string) => {
    const visitor = await arrive()
    await visitor.signIn(mail, demoPassword)
    return visitor
  }
  const leave = async () => {
    await Promise.all(visitors.map(visitor => visitor.close()))
    await server.stop()
  }
  return { owner: await welcome('ilse@marram.example'), welcome, arrive, leave }
}
