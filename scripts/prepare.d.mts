/** What TypeScript takes from `prepare.mjs`, which is plain JavaScript. */
export const serverEnv: NodeJS.ProcessEnv
export const serverFlags: readonly string[]
