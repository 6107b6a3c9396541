import type { AccountLinkView, AccountView, RecoveryCodesView, TwoStepView } from '#contract/account-views.ts'
import type { JoinedByLinkView, JoinLinkOfferView } from '#contract/people-views.ts'
import type {
  AccountRequest,
  JoinByLinkRequest,
  NewPasswordRequest,
  PasswordRequest,
  NewWorkspaceRequest,
  UseLinkRequest,
} from '#contract/requests.ts'
import { api, post } from './api.ts'

/** What belongs to the holder of an account, and the ways in before one is signed in. */
export const account = api.injectEndpoints({
  endpoints: build => ({
    account: build.query<AccountView, void>({
      query: () => ({ path: '/account' }),
      providesTags: ['account'],
    }),
    changeAccount: build.mutation<AccountView, AccountRequest>({
      query: body => ({ path: '/account', method: 'PUT', body }),
      invalidatesTags: ['account', 'session'],
    }),
    changePassword: build.mutation<null, NewPasswordRequest>({
      query: body => ({ path: '/account/password', method: 'PUT', body }),
      invalidatesTags: ['account'],
    }),
    confirmAddress: build.mutation<null, void>({ query: () => post('/account/address', {}) }),
    beginTwoStep: build.mutation<TwoStepView, PasswordRequest>({
      query: body => post('/account/two-step', body),
    }),
    confirmTwoStep: build.mutation<RecoveryCodesView, string>({
      query: code => post('/account/two-step/confirm', { code }),
      invalidatesTags: ['account', 'workspace'],
    }),
    endTwoStep: build.mutation<null, PasswordRequest>({
      query: body => post('/account/two-step/end', body),
      invalidatesTags: ['account', 'workspace'],
    }),
    /** One sign-in, or all but this one. */
    endSignIns: build.mutation<null, string | null>({
      query: id => ({ path: `/account/sign-ins${id === null ? '' : `/${id}`}`, method: 'DELETE' }),
      invalidatesTags: ['account', 'session'],
    }),
    acceptMine: build.mutation<{ slug: string }, { id: string; agrees: boolean }>({
      query: ({ id, agrees }) => post(`/account/invitations/${id}`, { agrees }),
      invalidatesTags: ['session', 'workspace'],
    }),
    makeWorkspace: build.mutation<{ slug: string }, NewWorkspaceRequest>({
      query: body => post('/workspaces', body),
      invalidatesTags: ['session'],
    }),
    forgotten: build.mutation<null, string>({ query: mail => post('/forgotten', { mail }) }),
    accountLink: build.query<AccountLinkView, string>({
      query: token => post('/account-links/read', { token }),
    }),
    useAccountLink: build.mutation<null, UseLinkRequest>({
      query: body => post('/account-links/use', body),
      invalidatesTags: ['session', 'account'],
    }),
    joinLink: build.query<JoinLinkOfferView, string>({
      query: token => post('/join-links/read', { token }),
    }),
    joinByLink: build.mutation<JoinedByLinkView, JoinByLinkRequest>({
      query: body => post('/join-links/join', body),
      invalidatesTags: ['session', 'workspace'],
    }),
  }),
})

export const {
  useAccountQuery,
  useChangeAccountMutation,
  useChangePasswordMutation,
  useConfirmAddressMutation,
  useBeginTwoStepMutation,
  useConfirmTwoStepMutation,
  useEndTwoStepMutation,
  useEndSignInsMutation,
  useAcceptMineMutation,
  useMakeWorkspaceMutation,
  useForgottenMutation,
  useAccountLinkQuery,
  useUseAccountLinkMutation,
  useJoinLinkQuery,
  useJoinByLinkMutation,
} = account
