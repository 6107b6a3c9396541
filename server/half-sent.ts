import type { IncomingMessage, Server } from 'node:http'
import type { Socket } from 'node:net'

/** Which connections wait for the rest of a request: nothing was promised to them yet. */
export interface Requests {
  /** Ends the connections on which no whole request has come; those that are being answered stay. */
  readonly dropHalfSent: () => void
}

export function trackRequests(server: Server): Requests {
  const current = new Map<Socket, IncomingMessage | null>()
  server.on('connection', socket => {
    current.set(socket, null)
    socket.on('close', () => current.delete(socket))
  })
  server.on('request', (request, response) => {
    current.set(request.socket, request)
    response.on('close', () => current.has(request.socket) && current.set(request.socket, null))
  })
  return {
    dropHalfSent: () => {
      for (const [socket, request] of current) if (request?.complete !== true) socket.destroy()
    },
  }
}
