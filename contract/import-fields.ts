/** The columns of a table of people that is brought in. */
export const importFields = [
  'mail',
  'name',
  'handle',
  'title',
  'department',
  'country',
  'as',
  'role',
  'teams',
  'until',
] as const
export type ImportField = (typeof importFields)[number]
