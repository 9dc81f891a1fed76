/** What the start of the application needs to know. */
export interface Me {
  teacher: { id: string; name: string; admin: boolean } | null;
  needsSetup: boolean;
  demo: boolean;
  /** Whether teachers can sign in with the school's own accounts. */
  schoolSignIn: boolean;
}

export interface SignInRequest {
  email: string;
  password: string;
}

/** The school's first teacher. */
export interface SetUpRequest extends SignInRequest {
  name: string;
}

/** Something that a teacher has set for themselves. */
export interface PreferenceReply<Value extends object = object> {
  value: Value;
}
