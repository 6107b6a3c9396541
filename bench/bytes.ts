import { fork } from 'node:child_process'
import { once } from 'node:events'
import { request } from 'node:http'
import { Readable } from 'node:stream'
import { resolve } from 'node:path'
import { createCanvas } from '@napi-rs/canvas'
import sharp from 'sharp'
import { middle, once as takes, type Reading } from './measure.ts'
import { copyOfLarge } from './seeded.ts'
import { asServer, type Client, signedIn, startServed } from './served.ts'

/** How fast files come in and go out, beside a server that does nothing but write a stream to a file, or send one. */

const size = 'files'
const mebibyte = 1024 ** 2
const large = 1024 * mebibyte
const huge = 5 * 1024 * mebibyte
const many = 20
const each = 64 * mebibyte

export async function byteReadings(): Promise<Reading[]> {
  const served = await startServed(await copyOfLarge('S'))
  const bare = await startBare()
  try {
    const owner = await signedIn(served.address, 'owner')
    const place = await ownPlace(owner)
    const send = (name: string, bytes: number) => upload(owner, { place, name, bytes })
    const toBare = (bytes: number) => sent(`${bare.address}/`, { method: 'PUT', headers: {} }, bytes)
    // In turns: what others do on this machine meets both.
    const ours: number[] = []
    const theirs: number[] = []
    for (let turn = 0; turn < 3; turn += 1) {
      theirs.push(await takes(() => toBare(large)))
      ours.push(await takes(() => send(`large ${turn}`, large)))
    }
    const floor = { what: 'a stream written to a file and synced, and nothing else', value: middle(theirs) }
    const { memory: before } = await served.noted()
    const memory: number[] = []
    const watching = setInterval(() => void served.noted().then(noted => memory.push(noted.memory)), 500)
    await send('huge', huge)
    clearInterval(watching)
    await served.noted()
    const together = (run: (at: number) => Promise<unknown>) =>
      takes(() => Promise.all(Array.from({ length: many }, (_, at) => run(at))))
    const manyFloor = await together(() => toBare(each))
    return [
      { id: 'bytes.upload', size, unit: 'ms', value: middle(ours), floor },
      { id: 'bytes.memory', size, unit: 'MiB', value: Math.max(...memory) - before },
      {
        id: 'bytes.many',
        size,
        unit: 'ms',
        value: await together(at => send(`many ${at}`, each)),
        floor: { what: 'the same, twenty at once', value: manyFloor },
      },
      ...(await pictures(owner, place)),
      ...(await ranges(owner, place, bare.address)),
    ]
  } finally {
    bare.stop()
    await served.stop()
  }
}

/** A server of its own, in a process like ours. */
async function startBare() {
  const child = fork(resolve(import.meta.dirname, 'bare-child.ts'), [], asServer)
  const [address] = (await once(child, 'message')) as [string]
  return { address, stop: () => child.kill() }
}

async function ownPlace({ address, cookie }: Client): Promise<string> {
  const answer = await fetch(`${address}/api/at/large/tree`, { headers: { cookie } })
  const { homes } = (await answer.json()) as { homes: { id: string }[] }
  return homes[0]?.id ?? ''
}

interface Sent {
  readonly place: string
  readonly name: string
  readonly bytes: number
}

const encoded = (text: string) => Buffer.from(text).toString('base64')

async function announced({ address, cookie, csrf }: Client, { place, name, bytes }: Sent): Promise<string> {
  const answer = await fetch(`${address}/api/at/large/uploads`, {
    method: 'POST',
    headers: {
      cookie,
      'x-noskel-csrf': csrf,
      'tus-resumable': '1.0.0',
      'upload-length': String(bytes),
      'upload-metadata': `filename ${encoded(name)},place ${encoded(place)}`,
    },
  })
  if (answer.status !== 201) throw new Error(await answer.text())
  return `${address}${answer.headers.get('location') ?? ''}`
}

const uploading = ({ cookie, csrf }: Client) => ({
  cookie,
  'x-noskel-csrf': csrf,
  'tus-resumable': '1.0.0',
  'content-type': 'application/offset+octet-stream',
  'upload-offset': '0',
})

async function upload(client: Client, what: Sent): Promise<void> {
  const status = await sent(
    await announced(client, what),
    { method: 'PATCH', headers: uploading(client) },
    what.bytes,
  )
  if (status !== 204) throw new Error(`an upload was answered with ${status}`)
}

let turn = 0

/** Sends so many bytes, no two bodies alike. */
function sent(
  address: string,
  { method, headers }: { readonly method: string; readonly headers: Record<string, string> },
  bytes: number,
): Promise<number> {
  const chunk = Buffer.alloc(mebibyte, (turn += 1) % 251)
  chunk.writeUInt32LE(turn, 0)
  const body = Readable.from(
    (function* () {
      for (let count = 0; count < bytes; count += chunk.length) yield chunk
    })(),
    { objectMode: false, highWaterMark: mebibyte },
  )
  return new Promise((resolve, reject) => {
    const asking = request(
      address,
      { method, headers: { ...headers, 'content-length': String(bytes) } },
      answer => {
        answer.resume()
        answer.on('end', () => resolve(answer.statusCode ?? 0))
      },
    )
    asking.on('error', reject)
    body.pipe(asking)
  })
}

/** As a camera of twelve million pixels makes them. */
async function photograph(seed: number): Promise<Buffer> {
  const canvas = createCanvas(4000, 3000)
  const brush = canvas.getContext('2d')
  for (let count = 0; count < 3000; count += 1) {
    brush.fillStyle = `hsl(${(count * 37 + seed) % 360} 50% 50%)`
    brush.fillRect((count * 131) % 4000, (count * 89) % 3000, 120, 90)
  }
  return canvas.encode('jpeg', 88)
}

const shots = 9

async function pictures(client: Client, place: string): Promise<Reading[]> {
  const taken: number[] = []
  const alone: number[] = []
  for (let shot = 0; shot < shots; shot += 1) {
    const bytes = await photograph(shot)
    const id = await put(client, place, { name: `photo ${shot}.jpg`, bytes })
    const address = `${client.address}/api/at/large/nodes/${id}/file/preview/1?size=small`
    taken.push(
      await takes(async () => (await fetch(address, { headers: { cookie: client.cookie } })).arrayBuffer()),
    )
    alone.push(await takes(() => sharp(bytes).rotate().resize(320, 320, { fit: 'inside' }).webp().toBuffer()))
  }
  // The first one waits for a process to start.
  const floor = { what: 'the picture scaled in its place', value: middle(alone.slice(1)) }
  return [{ id: 'bytes.thumbnail', size, unit: 'ms', value: middle(taken.slice(1)), floor }]
}

async function put(
  client: Client,
  place: string,
  { name, bytes }: { readonly name: string; readonly bytes: Uint8Array },
): Promise<string> {
  const address = await announced(client, { place, name, bytes: bytes.length })
  const answer = await fetch(address, {
    method: 'PATCH',
    headers: uploading(client),
    body: new Uint8Array(bytes),
  })
  if (answer.status !== 204) throw new Error(await answer.text())
  const within = await fetch(`${client.address}/api/at/large/nodes/${place}/children`, {
    headers: { cookie: client.cookie },
  })
  const children = (await within.json()) as { id: string; name: string }[]
  return children.find(each => each.name === name)?.id ?? ''
}

const rangeLength = 8 * mebibyte
const rangeTimes = 30

/** Parts of a large file, beside a server of files that asks nobody. */
async function ranges(client: Client, place: string, bare: string): Promise<Reading[]> {
  const bytes = Buffer.alloc(256 * mebibyte, 'film')
  const id = await put(client, place, { name: 'film', bytes })
  await fetch(`${bare}/film`, { method: 'PUT', body: new Uint8Array(bytes) })
  const rangeTime = async (address: string, cookie: string) => {
    const taken: number[] = []
    for (let count = 0; count < rangeTimes; count += 1) {
      const from = (count * 7 * mebibyte) % (bytes.length - rangeLength)
      const range = `bytes=${from}-${from + rangeLength - 1}`
      taken.push(
        await takes(async () => {
          const answer = await fetch(address, { headers: { range, cookie } })
          if (answer.status !== 206) throw new Error(`a range was answered with ${answer.status}`)
          await answer.arrayBuffer()
        }),
      )
    }
    return middle(taken)
  }
  const floor = { what: 'a static server of files', value: await rangeTime(`${bare}/film`, '') }
  const address = `${client.address}/api/at/large/nodes/${id}/file/bytes`
  return [{ id: 'bytes.range', size, unit: 'ms', value: await rangeTime(address, client.cookie), floor }]
}
