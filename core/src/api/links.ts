export const LINK_LIMITS = { title: 200, password: 100, perLesson: 100 } as const;

/** What a link is to be. */
export interface LinkRequest {
  title: string;
  /** The class whose pages are shown; the lesson's own where it is left out. */
  sitting?: string | undefined;
  /** The explanation that is played; pages are shown where it is left out. */
  explanation?: string | undefined;
  password?: string | undefined;
  /** After which nobody sees anything, milliseconds since 1970-01-01 UTC. */
  endsAt?: number | undefined;
  mayDownload: boolean;
}

/** A link as its teacher knows it. */
export interface SharedLinkSummary {
  id: string;
  title: string;
  /** The address that is given to others. */
  url: string;
  /** The explanation that it plays; null where it shows pages. */
  explanation: string | null;
  hasPassword: boolean;
  endsAt: number | null;
  mayDownload: boolean;
  createdAt: number;
}

/** A link as it is told to whoever has it, before they see anything. */
export interface SharedLinkDoor {
  title: string;
  /** Whether it plays an explanation; it shows pages else. */
  plays: boolean;
  hasPassword: boolean;
  mayDownload: boolean;
}

export interface LookAtLinkRequest {
  password?: string | undefined;
}
