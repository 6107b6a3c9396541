import type { Problem } from '#contract/problem.ts';
import type { AppliedView, ForeseenView, SessionView } from '#contract/views.ts';
import type { Config } from '../config.ts';
/** A real server on a real SQLite file and a port of its own. */
export interface TestServer {
    readonly address: string;
    readonly dataDir: string;
    /** What the server takes for now; a test moves it on. */
    readonly time: {
        now: number;
    };
    /** Stops and starts again on the same folder. */
    readonly restart: () => Promise<void>;
    readonly stop: () => Promise<void>;
}
export declare const start: number;
export declare function serve(more?: Partial<Config> & {
    readonly triesPerMinute?: number;
}): Promise<TestServer>;
export interface Answer<T = unknown> {
    readonly status: number;
    readonly body: T;
    readonly headers: Headers;
}
/** Somebody with a cookie jar of their own. */
export declare class Visitor {
    cookie: string;
    csrf: string;
    private readonly server;
    constructor(server: Pick<TestServer, 'address'>);
    call<T = Problem>(method: string, path: string, body?: unknown, headers?: Record<string, string>): Promise<Answer<T>>;
    get: <T>(path: string) => Promise<Answer<T>>;
    /** A call that opens a session, whose token is kept. */
    enter(path: string, body: unknown): Promise<Answer<SessionView & Problem>>;
    change: (...edits: object[]) => Promise<Answer<AppliedView & Problem>>;
    /** A change set with what goes with it: its reason, what its author saw. */
    send: (path: string, body: object) => Promise<Answer<AppliedView & Problem>>;
    foresee: (...edits: object[]) => Promise<ForeseenView & Problem>;
}
export declare const password = "a long enough secret";
/** A server with the workspace "Coast", and its Owner signed in. */
export declare function founded(more?: Parameters<typeof serve>[0]): Promise<{
    server: TestServer;
    owner: Visitor;
}>;
/** The token in the newest invitation to an address. */
export declare function tokenFor(visitor: Visitor, mail: string): Promise<string>;
export declare const invite: (mail: string, more?: object) => {
    kind: string;
    person: string;
    mail: string;
    name: string;
    as: string;
    role: null;
    scope: {
        over: string;
    };
    until: null;
    message: string;
};
/** Invites somebody and lets them come in. */
export declare function welcome(server: TestServer, owner: Visitor, { name, ...more }: {
    name: string;
    as?: string;
    role?: string;
}): Promise<{
    visitor: Visitor;
    id: string;
}>;
export declare const open: {
    from: null;
    until: null;
};
