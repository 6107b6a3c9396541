import type { TSchema } from '@sinclair/typebox'
import { problemLine, progressLine } from '#contract/live.ts'
import { type Operation, operationNames, operations } from '#contract/operations.ts'
import { problemType, refusalStatus, serverProblems } from '#contract/problem.ts'
import { type Answer, isSchema, type Route } from '#contract/route.ts'
import { routes } from '#contract/routes.ts'
import { Problem } from '#contract/views/problem.ts'

/** The description of the API, made of the table that it is served and asked by. */

type Json = { [field: string]: unknown }

/** What our validator reads and no reader of the description needs. */
const ours = new Set(['cleaned', 'names', 'makes', 'is', 'discriminator'])

/** Schemas with a title stand once, by that name. */
function describing() {
  const schemas: Json = {}
  const described = (schema: unknown): unknown => {
    if (Array.isArray(schema)) return schema.map(described)
    if (typeof schema !== 'object' || schema === null) return schema
    const { title } = schema as { title?: unknown }
    if (typeof title !== 'string') return fieldsOf(schema)
    if (!(title in schemas)) {
      // First its place, then what it is: a schema may hold itself.
      schemas[title] = {}
      schemas[title] = fieldsOf(schema)
    }
    return { $ref: `#/components/schemas/${title}` }
  }
  const fieldsOf = (schema: object) =>
    Object.fromEntries(
      Object.entries(schema)
        .filter(([field]) => !ours.has(field))
        .map(([field, part]) => [field, described(part)]),
    )
  return { schemas, described }
}

function describe(): Json {
  const { schemas, described } = describing()
  const paths: Record<string, Json> = {}
  const json = (schema: TSchema) => ({ 'application/json': { schema: described(schema) } })
  const answers = (answer: Answer, route: Route): Json => {
    if (!isSchema(answer)) return otherAnswers(answer, described)
    const lines = route.isSlow === true ? linesOf(answer, described) : {}
    return {
      [String(route.status ?? 200)]: { description: 'The answer.', content: { ...json(answer), ...lines } },
    }
  }
  for (const operation of operationNames) {
    const route: Route = routes[operation]
    const [method, path] = operations[operation]
    paths[path] = {
      ...paths[path],
      [method.toLowerCase()]: {
        operationId: operation,
        summary: route.does,
        description: `Needs: ${route.needs}`,
        tags: [tagOf(operation)],
        parameters: [...paramsOf(path, route, described), ...queryOf(route, described)],
        ...(route.body === undefined ? {} : { requestBody: bodyOf(route.body, json) }),
        responses: {
          ...answers(route.answer, route),
          default: {
            description: 'A refusal: what was refused, why, and what would work instead (RFC 9457).',
            content: { 'application/problem+json': { schema: described(Problem) } },
          },
        },
        security: path.startsWith('/at/') || path.startsWith('/account') ? [{ session: [] }] : [],
      },
    }
  }
  schemas['ProblemType'] = {
    description: 'Every type of a problem. None is ever given another meaning.',
    enum: [...Object.keys(serverProblems), ...Object.keys(refusalStatus)].map(code =>
      problemType(code as keyof typeof serverProblems),
    ),
  }
  return {
    openapi: '3.1.0',
    info: {
      title: 'Noskel',
      version: '1',
      description:
        'Who can do what, where and why, in a shared workspace. Every write carries the token of the session ' +
        '(x-noskel-csrf) once there is one. Every answer within a workspace tells the revision that it speaks of ' +
        '(noskel-revision).',
    },
    servers: [{ url: '/api' }],
    paths,
    components: {
      schemas,
      securitySchemes: { session: { type: 'apiKey', in: 'cookie', name: 'noskel' } },
    },
  }
}

type Described = (schema: unknown) => unknown

const paramsOf = (path: string, route: Route, described: Described): Json[] =>
  [...path.matchAll(/\{(\w+)\}/g)].map(([, name = '']) => ({
    name,
    in: 'path',
    required: true,
    schema: described(route.params?.[name] ?? { type: 'string', minLength: 1, maxLength: 60 }),
  }))

function queryOf({ query }: Route, described: Described): Json[] {
  const required = (query?.required ?? []) as readonly string[]
  return Object.entries((query?.properties ?? {}) as Record<string, TSchema>).map(([name, schema]) => ({
    name,
    in: 'query',
    required: required.includes(name),
    schema: described(schema),
  }))
}

const bodyOf = (body: NonNullable<Route['body']>, json: (schema: TSchema) => Json): Json => ({
  required: true,
  content: isSchema(body) ? json(body) : { [body.type]: {} },
})

/** Whoever accepts lines gets these, one after another, and the answer as the last one. */
const linesOf = (answer: TSchema, described: Described): Json => ({
  'application/x-ndjson': {
    schema: {
      anyOf: [
        described(progressLine),
        { type: 'object', required: ['answer'], properties: { answer: described(answer) } },
        described(problemLine),
      ],
    },
  },
})

function otherAnswers(answer: Exclude<Answer, TSchema>, described: Described): Json {
  switch (answer.kind) {
    case 'nothing':
      return { '204': { description: 'Done.' } }
    case 'headers':
      return { '200': { description: 'What there is to know, in the headers (tus 1.0).' } }
    case 'file':
      return {
        '200': { description: 'The file.', content: { '*/*': {} } },
        '206': { description: 'The part of it that was asked for.', content: { '*/*': {} } },
      }
    case 'bytes':
      return { '200': { description: 'A file.', content: { [answer.type]: {} } } }
    case 'events':
      return {
        '200': {
          description: `Server-sent events: ${Object.keys(answer.events).join(', ')}.`,
          content: {
            'text/event-stream': { schema: { anyOf: Object.values(answer.events).map(described) } },
          },
        },
      }
  }
}

/** Operations stand together by what follows the workspace in their address. */
const tagOf = (operation: Operation): string =>
  operations[operation][1].replace('/at/{slug}', '').split('/')[1]?.replace(/\..*/, '') || 'workspace'

export const description = describe()
