import { demoPassword } from '#demo/scenario/people.ts'
import { type DemoServer, startDemo } from './server.ts'
import { Visitor } from './visitor.ts'

/** A server for the journeys of a file, and everybody who arrives at it. */
export interface Stage {
  readonly server: DemoServer
  /** Somebody at a browser of their own who has not signed in; at another address, where one leads to the server. */
  readonly arrive: (address?: string) => Promise<Visitor>
  /** Somebody who is there, signed in at a browser of their own: the same browser whenever they are welcomed again. */
  readonly welcome: (mail: string, address?: string) => Promise<Visitor>
  /** Closes every browser and stops the server. */
  readonly leave: () => Promise<void>
}

export async function stage(start: () => Promise<DemoServer> = startDemo): Promise<Stage> {
  const server = await start()
  const visitors: Visitor[] = []
  const signedIn = new Map<string, Visitor>()
  const arrive = async (address = server.address) => {
    const visitor = await Visitor.arrive(address)
    visitors.push(visitor)
    return visitor
  }
  const welcome = async (mail: string, address?: string) => {
    const key = `${mail} ${address}`
    const visitor = signedIn.get(key) ?? (await arrive(address))
    if (!signedIn.has(key)) await visitor.enter(mail, demoPassword)
    signedIn.set(key, visitor)
    return visitor
  }
  const leave = async () => {
    await Promise.all(visitors.map(visitor => visitor.close()))
    await server.stop()
  }
  return { server, arrive, welcome, leave }
}

/** The demo with its owner signed in; others arrive as they are wanted. */
export interface OwnerOfDemo extends Stage {
  readonly owner: Visitor
}

export async function ownerOfDemo(): Promise<OwnerOfDemo> {
  const demo = await stage()
  const owner = await demo.welcome('ilse@marram.example')
  await owner.open('/')
  return { ...demo, owner }
}
