/** What a formula says, as one line. */
export function saidBy(tex: string): string;
