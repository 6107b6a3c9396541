import type { Request, Response } from 'express'
import { type UploadRequest, uploadRequest } from '#contract/requests.ts'
import type { UploadView } from '#contract/views/files.ts'
import { problemOf } from '../problem-error.ts'
import { checked } from './check.ts'

/** tus 1.0, the part of it that is headers: what a request says of an upload, and what an answer does. */

export const tusVersion = '1.0.0'

/** What is announced. Throws the problem that names what is wrong. */
export function announced(request: Request): UploadRequest {
  const data = metadataIn(request.get('upload-metadata') ?? '')
  const of = data.get('version-of')
  return checked(uploadRequest, {
    place: of ?? data.get('place') ?? '',
    isVersion: of !== undefined,
    name: lastOf(data.get('filename') ?? ''),
    size: wholeIn(request.get('upload-length')),
  })
}

/** Pairs of a key and a text in Base64, with commas between them. */
function metadataIn(header: string): ReadonlyMap<string, string> {
  return new Map(
    header.split(',').flatMap(pair => {
      const [key = '', value = ''] = pair.trim().split(' ')
      return key === '' ? [] : [[key, Buffer.from(value, 'base64').toString('utf8')] as const]
    }),
  )
}

/** What a path ends in, without signs that steer: nothing that is sent leads anywhere, or reads otherwise than it is. */
const lastOf = (path: string): string =>
  path
    .split(/[\\/]/)
    .at(-1)
    ?.replaceAll(/[\p{Cc}\u202a-\u202e\u2066-\u2069]+/gu, ' ')
    .trim()
    .slice(0, 200) ?? ''

const wholeIn = (header: string | undefined): number =>
  /^\d{1,15}$/.test(header ?? '') ? Number(header) : -1

export const sayProtocol = (response: Response, largest: number): void =>
  void response.set({
    'tus-resumable': tusVersion,
    'tus-version': tusVersion,
    'tus-extension': 'creation,termination',
    'tus-max-size': String(largest),
  })

export function offsetIn(request: Request): number {
  const offset = wholeIn(request.get('upload-offset'))
  if (offset < 0)
    throw problemOf('bad-input', {
      faults: [{ at: 'Upload-Offset', message: 'This has to be a whole number.' }],
    })
  return offset
}

export const sayOffset = (
  response: Response,
  { received, size }: Pick<UploadView, 'received' | 'size'>,
): void =>
  void response.set({
    'tus-resumable': tusVersion,
    'upload-offset': String(received),
    'upload-length': String(size),
  })

/** The file that an upload became: not of the protocol, and left alone by whoever does not know it. */
export function sayFile(response: Response, file: string | undefined): void {
  if (file !== undefined) response.set('noskel-file', file)
}
