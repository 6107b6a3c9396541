import type { RequestId } from '../../base/ids.ts'
import type { Wanted } from '../../people/request.ts'
import type { Given } from '../requests/rule.ts'

export interface MakeRequest {
  readonly kind: 'request.make'
  readonly request: RequestId
  readonly wants: Wanted
  readonly reason: string
}

export interface WithdrawRequest {
  readonly kind: 'request.withdraw'
  readonly request: RequestId
}

export interface AcceptRequest {
  readonly kind: 'request.accept'
  readonly request: RequestId
  readonly gives: Given
  /** What whoever asked is told besides. */
  readonly comment: string
}

export interface DeclineRequest {
  readonly kind: 'request.decline'
  readonly request: RequestId
  readonly comment: string
}
