import { type BaseQueryFn, createApi, type EndpointBuilder } from '@reduxjs/toolkit/query/react'
import type { Operation } from '#contract/operations.ts'
import type { Problem } from '#contract/views/problem.ts'
import { type ArgOf, type Call, calling, callOf, type OnProgress, type ResultOf } from './call.ts'

const tagTypes = ['session', 'account', 'workspace'] as const
type Tag = (typeof tagTypes)[number]
type Builder = EndpointBuilder<typeof baseQuery, Tag, 'api'>

/** A question, asked anew when something of its tags changed. One tag for all of a workspace: any change can change it. */
export const query = <O extends Operation>(
  build: Builder,
  operation: O,
  tags: readonly Tag[] = ['workspace'],
) =>
  build.query<ResultOf<O>, ArgOf<O>>({
    query: given => callOf(operation, given),
    providesTags: [...tags],
  })

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
    signIn: mutation(build, 'signIn', ['session', 'account', 'workspace']),
    signOut: mutation(build, 'signOut', ['session']),
    setUp: mutation(build, 'setUp', ['session']),
    readInvitation: query(build, 'readInvitation', []),
    acceptInvitation: mutation(build, 'acceptInvitation', ['session', 'workspace']),
    mailbox: query(build, 'mailbox', []),
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
    columns: query(build, 'columns'),
    changesWithin: query(build, 'changesWithin'),
    explanation: query(build, 'explanation'),
    saveText: mutation(build, 'saveText', ['workspace']),
    preview: longMutation(build, 'preview'),
    change: longMutation(build, 'change', ['workspace']),
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
  useColumnsQuery,
  useChangesWithinQuery,
} = api
