import { api, mutation, query } from './api.ts'

/** What belongs to the holder of an account, and the ways in before one is signed in. */
const accountApi = api.injectEndpoints({
  endpoints: build => ({
    account: query(build, 'account', ['account']),
    changeAccount: mutation(build, 'changeAccount', ['account', 'session']),
    changePassword: mutation(build, 'changePassword', ['account']),
    confirmAddress: mutation(build, 'confirmAddress'),
    beginTwoStep: mutation(build, 'beginTwoStep'),
    confirmTwoStep: mutation(build, 'confirmTwoStep', ['account', 'own']),
    endTwoStep: mutation(build, 'endTwoStep', ['account', 'own']),
    endSignIn: mutation(build, 'endSignIn', ['account', 'session']),
    endOtherSignIns: mutation(build, 'endOtherSignIns', ['account', 'session']),
    acceptMine: mutation(build, 'acceptMine', ['session', 'own']),
    createWorkspace: mutation(build, 'createWorkspace', ['session']),
    resetPassword: mutation(build, 'resetPassword'),
    readAccountLink: query(build, 'readAccountLink'),
    useAccountLink: mutation(build, 'useAccountLink', ['session', 'account']),
    readJoinLink: query(build, 'readJoinLink'),
    joinByLink: mutation(build, 'joinByLink', ['session', 'own']),
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
  useEndSignInMutation,
  useEndOtherSignInsMutation,
  useAcceptMineMutation,
  useCreateWorkspaceMutation,
  useResetPasswordMutation,
  useReadAccountLinkQuery,
  useUseAccountLinkMutation,
  useReadJoinLinkQuery,
  useJoinByLinkMutation,
} = accountApi
