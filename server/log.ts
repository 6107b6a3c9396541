import { type DestinationStream, type Logger, pino } from 'pino'

/** JSON lines, without what people wrote: a statement that failed is told by its reason, not by its values. */
export const createLog = (level: string, to: DestinationStream = pino.destination(1)): Logger =>
  pino({ level, serializers: { err: errorFields } }, to)

/** Errors of the database carry the statement and all its values; messages of others are ours, or of packages. */
function errorFields(error: unknown): object {
  const { name, message, stack = '', code } = error as Error & { readonly code?: string }
  const frames = stack.slice(stack.indexOf('\n    at ') + 1)
  const isOfDatabase = 'sql' in (error as object) || 'parent' in (error as object)
  const reason = isOfDatabase
    ? (/^[A-Z_]+(?:: [A-Za-z ]+ failed: [\w., ]+)?/.exec(message)?.[0] ?? name)
    : message
  return { type: name, message: reason, code, stack: frames }
}
