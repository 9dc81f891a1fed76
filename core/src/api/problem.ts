/** What the server answers where it refuses: a code for the program, and a sentence that is fit to be shown. */
export interface ProblemReply {
  code: string;
  message: string;
  /** What the sentence has put in. */
  values?: Readonly<Record<string, string | number>>;
}

/** A line of an answer that is given while something long goes on: how far it is, at last what came of it. */
export type ProgressLine<Progress, Result> = Progress | Result | { error: ProblemReply };
