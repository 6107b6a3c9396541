import type { TreeItem } from '#contract/views/content.ts'
import type { TestServer, Visitor } from './client.ts'
import { at } from './coast.ts'

/** Uploads as a program of somebody else would send them: plain requests by tus 1.0. */

export interface Announced {
  readonly name: string
  readonly bytes: Uint8Array
  readonly place?: string
  readonly versionOf?: string
}

const encoded = (text: string) => Buffer.from(text).toString('base64')

export const headersOf = (visitor: Visitor, more: Record<string, string> = {}) => ({
  cookie: visitor.cookie,
  'x-noskel-csrf': visitor.csrf,
  'tus-resumable': '1.0.0',
  ...more,
})

/** Announces a file; the address of the upload is in the answer. */
export function announce(
  server: Pick<TestServer, 'address'>,
  visitor: Visitor,
  { name, bytes, place, versionOf, size = bytes.length }: Announced & { readonly size?: number },
): Promise<Response> {
  const data = [
    `filename ${encoded(name)}`,
    ...(place === undefined ? [] : [`place ${encoded(place)}`]),
    ...(versionOf === undefined ? [] : [`version-of ${encoded(versionOf)}`]),
  ]
  return fetch(`${server.address}/api${at}/uploads`, {
    method: 'POST',
    headers: headersOf(visitor, { 'upload-length': String(size), 'upload-metadata': data.join(',') }),
  })
}

/** Sends bytes of an upload from an offset on. */
export const append = (
  server: Pick<TestServer, 'address'>,
  visitor: Visitor,
  { path, offset, bytes }: { readonly path: string; readonly offset: number; readonly bytes: Uint8Array },
): Promise<Response> =>
  fetch(`${server.address}${path}`, {
    method: 'PATCH',
    headers: headersOf(visitor, {
      'content-type': 'application/offset+octet-stream',
      'upload-offset': String(offset),
    }),
    body: new Uint8Array(bytes),
  })

/** Sends a whole file. Resolves to the answer to its bytes, or to its announcement where that is refused. */
export async function upload(
  server: Pick<TestServer, 'address'>,
  visitor: Visitor,
  what: Announced,
): Promise<Response> {
  const announced = await announce(server, visitor, what)
  if (announced.status !== 201 || what.bytes.length === 0) return announced
  const path = announced.headers.get('location') ?? ''
  return append(server, visitor, { path, offset: 0, bytes: what.bytes })
}

export const bytesOf = (
  server: Pick<TestServer, 'address'>,
  visitor: Visitor,
  path: string,
  more: Record<string, string> = {},
) => fetch(`${server.address}/api${at}${path}`, { headers: headersOf(visitor, more) })

/** Puts a file into a place. Resolves to its id. */
export async function fileIn(
  server: Pick<TestServer, 'address'>,
  visitor: Visitor,
  what: Announced,
): Promise<string> {
  const done = await upload(server, visitor, what)
  if (done.status !== 204) throw new Error(await done.text())
  const { body } = await visitor.get<TreeItem[]>(`${at}/nodes/${what.place ?? ''}/children`)
  return body.find(each => each.name === what.name)?.id ?? ''
}
