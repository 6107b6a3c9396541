import { type ChildProcess } from 'node:child_process';
/** A server as it runs for people: a process of its own on a data folder. */
export interface ServerProcess {
    readonly address: string;
    readonly child: ChildProcess;
    readonly end: (signal: NodeJS.Signals) => Promise<void>;
}
export declare function startProcess(dataDir: string, { env, flags }?: {
    readonly env?: NodeJS.ProcessEnv;
    readonly flags?: readonly string[];
}): Promise<ServerProcess>;
