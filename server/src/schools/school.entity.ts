import { Column, Entity, PrimaryColumn } from 'typeorm';

/** The school that every installation begins with. */
export const FIRST_SCHOOL = '00000000-0000-4000-8000-000000000001';

/** A school of the installation. Nothing of one is seen at another. */
@Entity('tenant')
export class School {
  @PrimaryColumn({ type: 'text' }) id: string;
  /** Empty until somebody names it. */
  @Column({ type: 'text' }) name: string;
  /** What the address of its own sign-in page ends with. */
  @Column({ type: 'text' }) slug: string;
  @Column({ type: 'integer', name: 'created_at' }) createdAt: number;
  /** Since when nobody comes in; null while it is open. */
  @Column({ type: 'integer', name: 'closed_at', nullable: true }) closedAt: number | null;

  /** What the installation gives it, null for as much as there is: bytes of files, and teachers. */
  @Column({ type: 'integer', name: 'max_bytes', nullable: true }) maxBytes: number | null;
  @Column({ type: 'integer', name: 'max_teachers', nullable: true }) maxTeachers: number | null;

  /** What the school has set for itself, null where the settings of the server hold. */
  @Column({ type: 'integer', name: 'max_upload_mb', nullable: true }) maxUploadMb: number | null;
  @Column({ type: 'integer', name: 'max_pages', nullable: true }) maxPages: number | null;
  @Column({ type: 'integer', name: 'retention_days', nullable: true }) retentionDays: number | null;
  @Column({ type: 'boolean', name: 'tell_of_recording' }) tellOfRecording: boolean;

  /** Its own sign-in (OpenID Connect); null where it has none. */
  @Column({ type: 'text', name: 'oidc_issuer', nullable: true }) oidcIssuer: string | null;
  @Column({ type: 'text', name: 'oidc_client_id', nullable: true }) oidcClientId: string | null;
  @Column({ type: 'text', name: 'oidc_client_secret', nullable: true }) oidcClientSecret: string | null;
  /** Whether an address counts as somebody's where that sign-in does not say that it has checked it. */
  @Column({ type: 'boolean', name: 'oidc_trust_email' }) oidcTrustEmail: boolean;
}
