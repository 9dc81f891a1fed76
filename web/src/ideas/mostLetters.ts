/** Letters that fit on a note and can be read from the back of a room (common practice, no source). */
export const MOST_LETTERS = 200;
