/**
 * Mail addresses as RFC 5321 and 6531 have them, in the form that people give them: a local part of plain signs and
 * letters of any script, without quotes and comments, at a domain with a dot. A domain in another script is one that
 * has a form in ASCII.
 */

const local = /^[\p{L}\p{M}\p{N}!#$%&'*+/=?^_`{|}~-]+(?:\.[\p{L}\p{M}\p{N}!#$%&'*+/=?^_`{|}~-]+)*$/u
const label = /^[a-z0-9](?:[a-z0-9-]{0,61}[a-z0-9])?$/

export function isMail(text: string): boolean {
  const at = text.lastIndexOf('@')
  const name = text.slice(0, at)
  const domain = asciiOf(text.slice(at + 1))
  if (at < 1 || domain === undefined || new TextEncoder().encode(name).length > 64) return false
  const labels = domain.split('.')
  return (
    local.test(name) && domain.length <= 253 && labels.length > 1 && labels.every(each => label.test(each))
  )
}

/** By what addresses of the web are read with, which knows the scripts. */
function asciiOf(domain: string): string | undefined {
  if (/[\s/?#:@\\%[\]]/.test(domain) || domain === '') return undefined
  const address = `http://${domain}/`
  return URL.canParse(address) ? new URL(address).hostname : undefined
}
