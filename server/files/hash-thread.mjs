import { createHash } from 'node:crypto'
import { closeSync, openSync, readSync } from 'node:fs'
import { parentPort } from 'node:worker_threads'

/** Hashes files while they are written (hasher.ts). In plain JavaScript, so that it is there at once. */

const going = new Map()
const block = Buffer.alloc(1024 ** 2)

parentPort.on('message', ({ id, path, bytes, isAll }) => {
  try {
    const one = going.get(id) ?? { file: openSync(path, 'r'), hash: createHash('sha256'), done: 0 }
    going.set(id, one)
    while (one.done < bytes) {
      const read = readSync(one.file, block, 0, Math.min(block.length, bytes - one.done), one.done)
      if (read === 0) throw new Error('there is less than was said')
      one.hash.update(block.subarray(0, read))
      one.done += read
    }
    if (isAll) end(id, { id, sha256: one.hash.digest('hex') })
  } catch {
    if (isAll) end(id, { id })
  }
})

function end(id, hashed) {
  const one = going.get(id)
  if (one !== undefined) closeSync(one.file)
  going.delete(id)
  parentPort.postMessage(hashed)
}
