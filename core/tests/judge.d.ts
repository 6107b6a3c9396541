import type { NodeId, PersonId } from '../base/ids.ts';
import { type Action } from '../levels/action.ts';
import { type Moment } from '../state/state.ts';
/**
 * The access model once more, slow and plain: written from docs/access-model.md and not from the engine,
 * over lists of names, with no index, no bits and no cache. The engine has to agree with it.
 */
export declare function judged({ state, at }: Moment, personId: PersonId, nodeId: NodeId, { beforeStates }?: {
    beforeStates?: boolean | undefined;
}): Action[];
/** Whether a visitor without an account sees a place: word for word what the contract says of `public`. */
export declare function judgedPublic({ state, at }: Moment, nodeId: NodeId): boolean;
