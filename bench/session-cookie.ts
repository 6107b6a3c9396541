/** The cookie of the sign-in among those that came with an answer. */
export const sessionCookieIn = (headers: Headers): string =>
  headers
    .getSetCookie()
    .find(each => each.startsWith('noskel='))
    ?.split(';')[0] ?? ''
