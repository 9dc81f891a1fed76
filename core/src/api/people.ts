/** What the start of the application needs to know. */
export interface Me {
  teacher: { id: string; name: string; admin: boolean } | null;
  /** Whoever looks after the installation and its schools, and sees nothing of what is in them. */
  operator: { name: string } | null;
  needsSetup: boolean;
  demo: boolean;
  /** Whether teachers can sign in with the school's own accounts. */
  schoolSignIn: boolean;
}

export interface SignInRequest {
  email: string;
  password: string;
  /** The id of one of `SignInReply`, or what the address of the school's sign-in page ends with. */
  school?: string;
}

/** Asks whoever has places at several schools, with one address and password, which of them they want. */
export interface SignInReply {
  schools: { id: string; name: string }[];
}

/** What the sign-in page of one school has to know. */
export interface SchoolDoor {
  name: string;
  /** Whether its teachers can sign in with the school's own accounts. */
  schoolSignIn: boolean;
}

/** The place of whoever looks after the installation, among the schools of `SignInReply`. */
export const INSTALLATION = 'installation';

/** The school's first teacher. */
export interface SetUpRequest extends Omit<SignInRequest, 'school'> {
  name: string;
}

/** Something that a teacher has set for themselves. */
export interface PreferenceReply<Value extends object = object> {
  value: Value;
}
