import { type BaseQueryFn, createApi } from '@reduxjs/toolkit/query/react'
import type { Problem } from '#contract/problem.ts'
import { isInLines, lastLineOf, linesType } from './lines.ts'
import type {
  AcceptRequest,
  ChangeSetRequest,
  SetUpRequest,
  SignInRequest,
  TextRequest,
} from '#contract/requests.ts'
import type { WhyNotView } from '#contract/oversight-views.ts'
import type { PersonName } from '#contract/people-views.ts'
import type { PreviewView } from '#contract/impact-views.ts'
import type {
  AccessView,
  AppliedView,
  BinnedView,
  ColumnView,
  InvitationView,
  MailView,
  NodeView,
  PlaceChangeView,
  SessionView,
  ExplanationView,
  TeamView,
  TextView,
  TreeItem,
  TreeView,
  WorkspaceView,
} from '#contract/views.ts'

export interface Call {
  readonly path: string
  readonly method?: 'POST' | 'PUT' | 'DELETE'
  readonly body?: unknown
  /** Told how much of it is done, 0 to 1, where the answer takes long. */
  readonly onProgress?: ((done: number) => void) | undefined
}

const unreachable: Problem = {
  type: 'urn:noskel:problem:unreachable',
  title: 'Noskel cannot be reached right now.',
  status: 0,
  detail: 'Check your connection and try again. Nothing you typed is lost.',
}

/** Every call of the server. A refusal comes back as its problem, ready to be shown. */
const call: BaseQueryFn<Call, unknown, Problem> = async (
  { path, method = 'GET', body, onProgress },
  { getState, signal, dispatch },
) => {
  const csrf = api.endpoints.session.select()(getState() as never).data?.csrf
  try {
    const response = await fetch(`/api${path}`, {
      method,
      signal,
      headers: {
        ...(method === 'GET' ? {} : { 'content-type': typeOf(body) }),
        ...(csrf ? { 'x-noskel-csrf': csrf } : {}),
        ...acceptsOf(onProgress),
      },
      ...(body === undefined ? {} : { body: body instanceof Blob ? body : JSON.stringify(body) }),
    })
    // The session has ended meanwhile: asked for anew, it leads to signing in.
    if (response.status === 401 && path !== '/session') dispatch(api.util.invalidateTags(['session']))
    return await answerIn(response, onProgress)
  } catch {
    return { error: unreachable }
  }
}

async function answerIn(
  response: Response,
  onProgress: Call['onProgress'],
): Promise<{ data: unknown } | { error: Problem }> {
  if (response.status === 204) return { data: null }
  if (isInLines(response)) return lastLineOf(response, onProgress)
  const answer: unknown = await response.json()
  return response.ok ? { data: answer } : { error: answer as Problem }
}

const acceptsOf = (onProgress: Call['onProgress']): { accept?: string } =>
  onProgress === undefined ? {} : { accept: `${linesType}, application/json` }

/** Files go as bytes, whatever they say they are: the server looks for itself. */
const typeOf = (body: unknown) => (body instanceof Blob ? 'application/octet-stream' : 'application/json')

/** A change set that is previewed or made, which may take long. */
export interface Working extends ChangeSetRequest {
  readonly slug: string
  readonly onProgress?: NonNullable<Call['onProgress']>
}

export interface AtNode {
  readonly slug: string
  readonly id: string
}

export const at = (slug: string, rest = '') => `/at/${slug}${rest}`
export const post = (path: string, body: unknown) => ({ path, body, method: 'POST' as const })

export const ofWorkspace = (rest: string) => ({
  query: (slug: string) => ({ path: at(slug, rest) }),
  providesTags: ['workspace' as const],
})

const ofNode = (rest: string) => ({
  query: ({ slug, id }: AtNode) => ({ path: at(slug, `/nodes/${id}${rest}`) }),
  providesTags: ['workspace' as const],
})

/** One tag for all of a workspace: any change of it can change who sees what anywhere. */
export const api = createApi({
  baseQuery: call,
  tagTypes: ['session', 'account', 'workspace'],
  endpoints: build => ({
    session: build.query<SessionView, void>({
      query: () => ({ path: '/session' }),
      providesTags: ['session'],
    }),
    signIn: build.mutation<SessionView, SignInRequest>({
      query: body => post('/session', body),
      invalidatesTags: ['session', 'account', 'workspace'],
    }),
    signOut: build.mutation<null, void>({
      query: () => ({ path: '/session', method: 'DELETE' }),
      invalidatesTags: ['session'],
    }),
    setUp: build.mutation<SessionView, SetUpRequest>({
      query: body => post('/set-up', body),
      invalidatesTags: ['session'],
    }),
    invitation: build.query<InvitationView, string>({ query: token => post('/invitations/read', { token }) }),
    accept: build.mutation<SessionView, AcceptRequest>({
      query: body => post('/invitations/accept', body),
      invalidatesTags: ['session', 'workspace'],
    }),
    mailbox: build.query<MailView[], void>({ query: () => ({ path: '/mailbox' }) }),
    workspace: build.query<WorkspaceView, string>(ofWorkspace('')),
    peopleNames: build.query<PersonName[], string>(ofWorkspace('/people/names')),
    teams: build.query<TeamView[], string>(ofWorkspace('/teams')),
    tree: build.query<TreeView, string>(ofWorkspace('/tree')),
    node: build.query<NodeView, AtNode>(ofNode('')),
    children: build.query<TreeItem[], AtNode>(ofNode('/children')),
    access: build.query<AccessView, AtNode>(ofNode('/access')),
    text: build.query<TextView, AtNode>(ofNode('/text')),
    whyNot: build.query<WhyNotView, AtNode & { readonly person: string; readonly action: string }>({
      query: ({ slug, id, person, action }) => ({
        path: at(slug, `/nodes/${id}/why-not/${person}/${action}`),
      }),
      providesTags: ['workspace'],
    }),
    bin: build.query<BinnedView[], string>(ofWorkspace('/bin')),
    columns: build.query<ColumnView[], AtNode>(ofNode('/columns')),
    changesWithin: build.query<PlaceChangeView[], AtNode>(ofNode('/changes')),
    explanation: build.query<ExplanationView, AtNode & { readonly person: string }>({
      query: ({ slug, id, person }) => ({ path: at(slug, `/nodes/${id}/why/${person}`) }),
      providesTags: ['workspace'],
    }),
    saveText: build.mutation<TextView, AtNode & TextRequest>({
      query: ({ slug, id, ...body }) => ({ path: at(slug, `/nodes/${id}/text`), method: 'PUT', body }),
      invalidatesTags: ['workspace'],
    }),
    preview: build.mutation<PreviewView, Working>({
      query: ({ slug, onProgress, ...body }) => ({ ...post(at(slug, '/changes/preview'), body), onProgress }),
    }),
    change: build.mutation<AppliedView, Working>({
      query: ({ slug, onProgress, ...body }) => ({ ...post(at(slug, '/changes'), body), onProgress }),
      invalidatesTags: ['workspace'],
    }),
  }),
})

export const {
  useSessionQuery,
  useSignInMutation,
  useSignOutMutation,
  useSetUpMutation,
  useInvitationQuery,
  useAcceptMutation,
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
