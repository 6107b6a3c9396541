import { createReadStream, createWriteStream } from 'node:fs'
import { link, mkdir, open, readdir, rm, stat, writeFile } from 'node:fs/promises'
import { dirname, join } from 'node:path'
import { type Readable, Transform } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { type Hasher, hashing } from './hasher.ts'
import { createMade } from './made.ts'

/**
 * Where the bytes of files lie: beside the database, each content under a name of its own that is never used again. What is
 * given a name here is whole and will last; a row that names it is written after that, and taken away before it.
 */
export interface FileStore {
  /**
   * Takes the next bytes of an upload into a part of it until they end, or there are as many as may come. Resolves to what
   * there is, however it ended: all of it will last.
   */
  readonly receive: (upload: string, part: string, from: Receiving) => Promise<Come>
  /** Puts the parts of an upload together under a name. Resolves to the SHA-256 of it all, in hexadecimal digits. */
  readonly settle: (upload: string, settling: Settling) => Promise<string>
  readonly dropUpload: (upload: string) => Promise<void>
  /** Where a file can be read. */
  readonly pathOf: (name: string) => string
  /** With all that was made of it. */
  readonly drop: (name: string) => Promise<void>
  /** Something that was made of a file, once for all who ask: it is made anew where it is not there any more. */
  readonly madeOf: (name: string, what: string, make: () => Promise<Uint8Array>) => Promise<Buffer>
  /** Lets go of what was made before an instant. */
  readonly dropMadeBefore: (instant: number) => Promise<void>
  /** Everything that has a name, and since when. */
  readonly names: () => AsyncGenerator<{ readonly name: string; readonly changedAt: number }>
  readonly uploads: () => Promise<readonly string[]>
}

/** What came into one part. */
export interface Come {
  readonly bytes: number
  readonly sha256: string
}

export interface Settling {
  readonly parts: readonly Part[]
  readonly name: string
  /** The hash of all of it, where it is known because it came in one part. */
  readonly sha256: string | undefined
}

export interface Receiving {
  readonly bytes: Readable
  readonly atMost: number
  /** Told now and then how many have come that will last. */
  readonly onLasting: (received: number) => Promise<void> | void
}

/** Of a part so many bytes count, from its first. */
export interface Part {
  readonly name: string
  readonly bytes: number
}

/** After so many bytes what has come is made lasting. */
const lastingEvery = 32 * 1024 ** 2
const writtenTogether = 1024 ** 2

/** Where a file lies in a data folder. Few names a folder: the last two letters of an id differ most. */
export const placeOf = (name: string): string => join('files', name.slice(-2), name)

/** A store in a folder. */
export function createFileStore(dataDir: string, hasher: Hasher): FileStore {
  const files = join(dataDir, 'files')
  const uploads = join(dataDir, 'uploads')
  const pathOf = (name: string) => join(dataDir, placeOf(name))
  const folderOf = (name: string) => dirname(pathOf(name))
  const made = createMade(join(dataDir, 'previews'))
  return {
    receive: async (upload, part, from) => {
      const folder = join(uploads, upload)
      await mkdir(folder, { recursive: true, mode: 0o700 })
      return receiveInto(hasher, join(folder, part), from)
    },
    settle: async (upload, { parts, name, sha256 }) => {
      const folder = join(uploads, upload)
      const whole = await assembled(folder, parts)
      const hash = sha256 ?? (await hashing(hasher, whole).finish((await stat(whole)).size))
      await mkdir(folderOf(name), { recursive: true, mode: 0o700 })
      // The upload has them still: whoever stops here begins this again.
      await link(whole, pathOf(name))
      await makeLasting(folderOf(name))
      return hash
    },
    dropUpload: upload => rm(join(uploads, upload), { recursive: true, force: true }),
    pathOf,
    drop: async name => {
      await rm(pathOf(name), { force: true })
      await made.drop(name)
    },
    madeOf: made.of,
    dropMadeBefore: made.dropBefore,
    names: () => namesIn(files),
    uploads: () => readdir(uploads).catch(() => []),
  }
}

async function* namesIn(files: string): AsyncGenerator<{ name: string; changedAt: number }> {
  for (const folder of await readdir(files).catch(() => []))
    for (const name of await readdir(join(files, folder)).catch(() => [])) {
      const found = await stat(join(files, folder, name)).catch(() => undefined)
      if (found !== undefined) yield { name, changedAt: found.ctimeMs }
    }
}

async function receiveInto(
  hasher: Hasher,
  path: string,
  { bytes, atMost, onLasting }: Receiving,
): Promise<Come> {
  let received = 0
  let lasting = 0
  let making: Promise<unknown> = Promise.resolve()
  const file = createWriteStream(path, { flags: 'wx', mode: 0o600, highWaterMark: writtenTogether })
  const hash = hashing(hasher, path)
  const counted = new Transform({
    transform: (chunk: Buffer, _, done) => {
      const taken = chunk.subarray(0, atMost - received)
      received += taken.length
      done(null, taken)
      if (received - lasting < lastingEvery) return
      lasting = received
      const written = file.bytesWritten
      hash.advance(written)
      making = making.then(() => makeLasting(path)).then(() => onLasting(written))
    },
  })
  // What breaks off is no fault: what has come counts.
  await pipeline(bytes, counted, file).catch(() => file.destroy())
  await making.catch(() => undefined)
  const { size } = await stat(path)
  const [sha256] = await Promise.all([hash.finish(size), makeLasting(path)])
  return { bytes: size, sha256 }
}

/** Has what was written to a file, or which names stand in a folder, last through a loss of power. */
async function makeLasting(path: string): Promise<void> {
  const file = await open(path, 'r')
  try {
    await file.sync()
  } finally {
    await file.close()
  }
}

/**
 * A file with all parts of an upload, that will last. What came in one is that itself; several are written together into another one, so that
 * nothing is ever written to a file that has a name already.
 */
async function assembled(folder: string, parts: readonly Part[]): Promise<string> {
  const [first] = parts
  const only = parts.length === 1 && first !== undefined ? join(folder, first.name) : undefined
  if (only !== undefined && (await stat(only)).size === first?.bytes) return only
  const whole = join(folder, 'whole')
  // An empty file comes without a part, and so without a folder.
  await mkdir(folder, { recursive: true, mode: 0o700 })
  await rm(whole, { force: true })
  await writeFile(whole, '', { mode: 0o600 })
  for (const { name, bytes } of parts)
    if (bytes > 0)
      await pipeline(
        createReadStream(join(folder, name), { end: bytes - 1, highWaterMark: writtenTogether }),
        createWriteStream(whole, { flags: 'a' }),
      )
  await makeLasting(whole)
  return whole
}
