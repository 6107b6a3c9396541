/** How large a table may be that is brought in. */
export const mostBytes = 20_000_000
export const mostPeople = 10_000
export const mostBoardRows = 50_000
