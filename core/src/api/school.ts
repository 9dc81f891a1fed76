/** A teacher as whoever looks after the school knows them. */
export interface SchoolTeacher {
  id: string;
  name: string;
  email: string;
  /** Whether they look after the school. */
  admin: boolean;
  lessons: number;
  /** Documents and recordings of theirs, bytes. */
  bytes: number;
  createdAt: number;
}

/** A colleague to whom a lesson can be given. */
export interface Colleague {
  id: string;
  name: string;
}

/** What whoever looks after the school can limit, each with the least and the most that it can be. */
export const LIMITS = {
  /** Largest file that is brought in, megabytes of 1,000,000 bytes. */
  maxUploadMb: { least: 1, most: 2000 },
  /** Most pages of one document. */
  maxPages: { least: 1, most: 5000 },
  /** How long classes are kept after they ended, days. */
  retentionDays: { least: 1, most: 36_500 },
} as const;

export type LimitName = keyof typeof LIMITS;
export interface SchoolLimits extends Record<LimitName, number> {
  /** Whether students are told in words when a class is recorded, and say that they know. */
  tellOfRecording: boolean;
}

/** What was cleared away of a school at a time; files where the installation has no other school. */
export interface SchoolCleared {
  at: number;
  classes: number;
  lessons: number;
  files: number | null;
  bytes: number | null;
}

/** How the school is, and the server. */
export interface SchoolHealth extends SchoolLimits {
  /** Empty where it has none. */
  name: string;
  /** Bytes that the school has brought in, and how many the installation gives it; null for as many as there are. */
  bytes: number;
  maxBytes: number | null;
  /** Bytes that are free on the disk of the server. */
  free: number;
  /** Failures since it was started. */
  failures: number;
  uptimeSeconds: number;
  /** What was cleared away lately, the last first. */
  cleared: readonly SchoolCleared[];
  /** What whoever looks after the installation did to the school lately, the last first. */
  deeds: readonly SchoolDeed[];
}

/** What can be done to a school from outside. */
export const SCHOOL_DEED_KINDS = ['made', 'named', 'given', 'signIn', 'invited', 'closed', 'opened'] as const;
export type SchoolDeedKind = (typeof SCHOOL_DEED_KINDS)[number];

/** Something that was done to a school from outside. */
export interface SchoolDeed {
  at: number;
  kind: SchoolDeedKind;
  /** Such as the address of who was invited; may be empty. */
  what: string;
  /** The name of who did it. */
  by: string;
}

/** What the school is called from now on. */
export interface SchoolNameRequest {
  name: string;
}

export interface TeacherInviteRequest {
  name: string;
  email: string;
}

/** A link that is given to whoever is invited; it is good once, for seven days. */
export interface InvitationReply {
  url: string;
}

/** What an invitation is, for whoever opens its link. */
export interface InvitationDoor {
  name: string;
  email: string;
  /** Whether it is for somebody who is there already, and chooses a new password. */
  isReset: boolean;
  /** What the school is called; empty where it has no name, null where it is for looking after the installation. */
  school: string | null;
}

export interface AcceptRequest {
  name: string;
  password: string;
}

export interface AdminRequest {
  admin: boolean;
}

/** Who gets what a teacher leaves behind. */
export interface LeaveRequest {
  to: string;
}

/** To whom a copy of a lesson is given. */
export interface GiveRequest {
  to: string;
}
