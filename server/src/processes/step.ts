/**
 * Rises by one with every change after which an earlier version could not run beside this one: of tables, or of what processes
 * tell each other. Versions whose steps differ by no more than one run beside each other.
 */
export const STEP = 2;
