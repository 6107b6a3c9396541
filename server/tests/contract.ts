import { Ajv, type ValidateFunction } from 'ajv'
import { type Operation, operationNames, operations } from '#contract/operations.ts'
import { problemType, refusalStatus, serverProblems } from '#contract/problem.ts'
import { isSchema } from '#contract/route.ts'
import { routes } from '#contract/routes.ts'
import { Problem } from '#contract/views/problem.ts'

/** Holds real answers against what the table of routes says of them: each test that asks anything is a test of that. */

const ajv = new Ajv({ strict: false, allErrors: true, validateFormats: false })
const compiled = new Map<unknown, ValidateFunction>()

function validatorOf(schema: object): ValidateFunction {
  const validate = compiled.get(schema) ?? ajv.compile(schema)
  compiled.set(schema, validate)
  return validate
}

const forms = operationNames.map(operation => {
  const [method, path] = operations[operation]
  // What is written out comes before what is filled in: /people/ids is no person.
  const places = (path.match(/\{/g) ?? []).length
  const form = new RegExp(`^${path.replaceAll('.', '\\.').replaceAll(/\{\w+\}/g, '[^/]+')}$`)
  return { operation, method, form, places }
})

/** The operation that a request is for. */
export const operationOf = (method: string, path: string): Operation | undefined =>
  forms
    .filter(each => each.method === method && each.form.test(path.replace(/\?.*/, '')))
    .toSorted((a, b) => a.places - b.places)[0]?.operation

const knownTypes = new Set(
  [...Object.keys(serverProblems), ...Object.keys(refusalStatus)].map(code =>
    problemType(code as keyof typeof serverProblems),
  ),
)

interface Answered {
  readonly method: string
  readonly path: string
  readonly status: number
  readonly body: unknown
}

/** Throws where an answer is not what the contract says. */
export function holdToContract({ method, path, status, body }: Answered): void {
  if (status >= 400) {
    expectFit(Problem, body, `the refusal of ${method} ${path}`)
    const { type } = body as { type: string }
    if (!knownTypes.has(type)) throw new Error(`${type} is no known type of problem (${method} ${path})`)
    return
  }
  const operation = operationOf(method, path)
  if (operation === undefined) throw new Error(`${method} ${path} is answered and not in the table of routes`)
  const { answer } = routes[operation]
  if (isSchema(answer)) expectFit(answer, body, operation)
}

function expectFit(schema: object, body: unknown, what: string): void {
  const validate = validatorOf(schema)
  if (validate(body)) return
  const faults = (validate.errors ?? []).slice(0, 5).map(each => `${each.instancePath} ${each.message ?? ''}`)
  throw new Error(`${what} is not answered as its schema says:\n${faults.join('\n')}`)
}
