import { createWriteStream, mkdtempSync, rmSync } from 'node:fs'
import { open } from 'node:fs/promises'
import { createServer } from 'node:http'
import type { AddressInfo } from 'node:net'
import { randomUUID } from 'node:crypto'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { pipeline } from 'node:stream/promises'
import express from 'express'

/** A server that writes what it is sent to a file, synced, and sends files: what no server of files is faster than. */
const folder = mkdtempSync(join(tmpdir(), 'noskel-bare-'))
const app = express()
app.put('/{:name}', async (incoming, response) => {
  const path = join(folder, incoming.params.name ?? randomUUID())
  await pipeline(incoming, createWriteStream(path, { highWaterMark: 1024 ** 2 }))
  const file = await open(path)
  await file.sync()
  await file.close()
  if (incoming.params.name === undefined) rmSync(path, { force: true })
  response.end()
})
app.use(express.static(folder))
const server = createServer(app)
server.listen(0, '127.0.0.1', () =>
  process.send?.(`http://127.0.0.1:${(server.address() as AddressInfo).port}`),
)
process.on('exit', () => rmSync(folder, { recursive: true, force: true }))
process.on('SIGTERM', () => process.exit(0))
