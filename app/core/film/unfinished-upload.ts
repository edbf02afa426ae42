/** An upload of which the server has the beginning. */
export interface UnfinishedUpload {
  id: string;
  name: string;
  /** Bytes in all, and that have arrived. */
  size: number;
  arrived: number;
  /** When the file was last changed where it comes from, in milliseconds; tells files of one name apart. */
  changedAt: number | null;
}
