/** An unfinished upload on the server. */
export interface UnfinishedUpload {
  id: string;
  name: string;
  /** Bytes in all, and received. */
  size: number;
  arrived: number;
  /** Time of the file's last change at its origin, in milliseconds; distinguishes files of one name. */
  changedAt: number | null;
}
