import { connect, createServer, type Socket } from 'node:net'

/** A line to a server that can be cut and mended, as a train in a tunnel does it. */
export interface Line {
  readonly address: string
  readonly cut: () => void
  readonly mend: () => void
  readonly close: () => Promise<void>
}

export async function lineTo(address: string): Promise<Line> {
  const port = Number(new URL(address).port)
  const open = new Set<Socket>()
  let isCut = false
  const server = createServer(socket => {
    if (isCut) {
      socket.destroy()
      return
    }
    const there = connect(port, '127.0.0.1')
    for (const end of [socket, there]) {
      open.add(end)
      end.on('close', () => open.delete(end))
      // What breaks when the line is cut is what is wanted.
      end.on('error', () => {})
    }
    socket.pipe(there).pipe(socket)
  })
  await new Promise<void>(resolve => server.listen(0, '127.0.0.1', resolve))
  const cut = () => {
    isCut = true
    for (const socket of open) socket.destroy()
  }
  return {
    address: `http://localhost:${(server.address() as { port: number }).port}`,
    cut,
    mend: () => {
      isCut = false
    },
    close: () => {
      cut()
      return new Promise(resolve => server.close(() => resolve()))
    },
  }
}
