/** Port that the tests use. */
export const PORT: number;
export const hasRedis: boolean;

/** Starts Redis on a port of the loopback. Resolves once it answers, with what stops it. */
export function startRedis(port: number): Promise<() => Promise<void>>;

export default function setup(): Promise<() => Promise<void>>;
