/** Figures of a school, for whoever looks after the installation; nothing of what is in it. */
export interface SchoolFigures {
  id: string;
  /** Empty until somebody names it. */
  name: string;
  /** What the address of its sign-in page ends with. */
  slug: string;
  createdAt: number;
  /** Since when nobody comes in; null while it is open. */
  closedAt: number | null;
  teachers: number;
  /** Those of them who look after the school. */
  admins: number;
  lessons: number;
  /** Classes that were opened in the last 30 days, and places of students in them. */
  classes: number;
  students: number;
  /** Classes that have not ended. */
  running: number;
  /** Files, bytes. */
  bytes: number;
  /** When a lesson was last opened; null for never. */
  usedAt: number | null;
  maxBytes: number | null;
  maxTeachers: number | null;
  signIn: SchoolSignIn | null;
}

/** A school's own sign-in (OpenID Connect). */
export interface SchoolSignIn {
  issuer: string;
  clientId: string;
  /** Whether an address counts as somebody's where that sign-in does not say that it has checked it. */
  trustEmail: boolean;
}

/** How the installation is. */
export interface InstallationFigures {
  /** Bytes that are free on the disk of the server that answers. */
  free: number;
  /** Failures since that was started. */
  failures: number;
  uptimeSeconds: number;
  /** Where the processes are that share the database; none where there is only one. */
  processes: readonly string[];
  schools: readonly SchoolFigures[];
}

export const SCHOOL_NAME_LENGTH = 120;
/** What can be given to a school: bytes of files, and teachers. */
export const MOST_SCHOOL_BYTES = 1e15;
export const MOST_SCHOOL_TEACHERS = 100_000;

/** A new school, and who is to look after it. */
export interface NewSchoolRequest {
  name: string;
  slug: string;
  adminName: string;
  adminEmail: string;
}

/** What is to be otherwise about a school; what is left out stays. */
export interface SchoolChangeRequest {
  name?: string;
  slug?: string;
  maxBytes?: number | null;
  maxTeachers?: number | null;
  /** Null takes it away; without a secret, that of before stays where the issuer does. */
  signIn?: (SchoolSignIn & { clientSecret?: string }) | null;
  closed?: boolean;
}

/** Takes a closed school away with all that is in it; its name is typed, so that it is no slip. */
export interface EraseSchoolRequest {
  name: string;
}
