/** Days for which a deleted film can be restored. */
export const DAYS_KEPT = 30;
