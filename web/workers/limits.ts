/** How large a table may be that is brought in. */
export const mostBytes = 20_000_000
export const mostRows = 10_000
