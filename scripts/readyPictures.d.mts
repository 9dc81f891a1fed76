/** Writes the ready pictures into a folder `ready` of the built web application. */
export function writeReadyPictures(dist: string): void;
