/** A class as a teacher has it all term: who is in it, and perhaps a code that stays. */
export interface Group {
  id: string;
  title: string;
  names: readonly string[];
  /** The join code of all its sittings; null where each has its own. */
  code: string | null;
}

export interface GroupRequest {
  title: string;
  names: readonly string[];
  /** Whether all its sittings have one code. */
  keepsCode: boolean;
}
