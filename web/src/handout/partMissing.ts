/** What the worker says where a part of the handout could not be fetched; those who have the words say it. */
export const PART_MISSING = 'part-missing';
