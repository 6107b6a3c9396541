import { type BaseQueryFn, createApi, type EndpointBuilder } from '@reduxjs/toolkit/query/react'
import type { Operation } from '#contract/operations.ts'
import { type Question, topics, topicsOf, topicsOfPlaces } from '#contract/topics.ts'
import type { Problem } from '#contract/views/problem.ts'
import { type ArgOf, type Call, calling, callOf, type OnProgress, type ResultOf } from './call.ts'

const tagTypes = ['session', 'account', ...topics, ...topicsOfPlaces] as const
type TagType = (typeof tagTypes)[number]
/** Of a topic of places without an id: of all of them. */
export type Tag = TagType | { readonly type: TagType; readonly id: string }
type Builder = EndpointBuilder<typeof baseQuery, TagType, 'api'>

/** A question in a workspace is asked anew when something of its topics changed (contract/topics.ts); another one by its tags. */
export const query = <O extends Operation>(build: Builder, operation: O, tags: readonly Tag[] = []) =>
  build.query<ResultOf<O>, ArgOf<O>>({
    query: given => callOf(operation, given),
    providesTags: (_answer, _error, given) => [...tags, ...tagsOf(operation, given)],
  })

function tagsOf(operation: Operation, given: unknown): readonly Tag[] {
  if (!isQuestion(operation)) return []
  const { id = '' } = (typeof given === 'object' ? given : {}) as { readonly id?: string }
  return ['own', ...topicsOf[operation].map(topic => tagOf(topic.replace('{id}', id)))]
}

const isQuestion = (operation: Operation): operation is Question => operation in topicsOf

/** A topic as it is told, as a tag. */
export function tagOf(topic: string): Tag {
  const [type, id] = topic.split(':') as [TagType, string | undefined]
  return id === undefined ? type : { type, id }
}

/** What does something, or only works something out; what it changes is asked for anew. */
export const mutation = <O extends Operation>(build: Builder, operation: O, changes: readonly Tag[] = []) =>
  build.mutation<ResultOf<O>, ArgOf<O>>({
    query: given => callOf(operation, given),
    invalidatesTags: [...changes],
  })

/** The same of what may take long: it tells how far it is. */
const longMutation = <O extends 'preview' | 'change'>(
  build: Builder,
  operation: O,
  changes: readonly Tag[] = [],
) =>
  build.mutation<ResultOf<O>, ArgOf<O> & Working>({
    query: given => callOf(operation, given),
    invalidatesTags: [...changes],
  })

export interface Working {
  readonly onProgress?: OnProgress
}

const baseQuery: BaseQueryFn<Call, unknown, Problem> = calling({
  csrfIn: (state): string | undefined => api.endpoints.session.select()(state as never).data?.csrf,
  onEnd: dispatch => void dispatch(api.util.invalidateTags(['session'])),
})

export const api = createApi({
  baseQuery,
  tagTypes,
  endpoints: build => ({
    session: query(build, 'session', ['session']),
    signIn: mutation(build, 'signIn', ['session', 'account', 'own']),
    signOut: mutation(build, 'signOut', ['session']),
    setUp: mutation(build, 'setUp', ['session']),
    readInvitation: query(build, 'readInvitation'),
    acceptInvitation: mutation(build, 'acceptInvitation', ['session', 'own']),
    mailbox: query(build, 'mailbox'),
    workspace: query(build, 'workspace'),
    peopleNames: query(build, 'peopleNames'),
    teams: query(build, 'teams'),
    tree: query(build, 'tree'),
    node: query(build, 'node'),
    children: query(build, 'children'),
    access: query(build, 'access'),
    text: query(build, 'text'),
    whyNot: query(build, 'whyNot'),
    bin: query(build, 'bin'),
    changesWithin: query(build, 'changesWithin'),
    explanation: query(build, 'explanation'),
    saveText: mutation(build, 'saveText', ['document', 'within']),
    preview: longMutation(build, 'preview'),
    change: longMutation(build, 'change', ['own']),
  }),
})

export const {
  useSessionQuery,
  useSignInMutation,
  useSignOutMutation,
  useSetUpMutation,
  useReadInvitationQuery,
  useAcceptInvitationMutation,
  useMailboxQuery,
  useWorkspaceQuery,
  usePeopleNamesQuery,
  useTeamsQuery,
  useTreeQuery,
  useNodeQuery,
  useChildrenQuery,
  useAccessQuery,
  useExplanationQuery,
  useTextQuery,
  useSaveTextMutation,
  useWhyNotQuery,
  useBinQuery,
  useChangesWithinQuery,
} = api
