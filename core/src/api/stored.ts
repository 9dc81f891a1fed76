/** Something that is stored now. */
export interface StoredReply {
  id: string;
}
