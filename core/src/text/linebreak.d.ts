declare module 'linebreak' {
  /** Finds where lines of a text may or must end. */
  export default class LineBreaker {
    constructor(text: string);
    nextBreak(): { position: number; required: boolean } | null;
  }
}
