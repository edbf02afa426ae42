/** Days for which a deleted film can be brought back. */
export const DAYS_KEPT = 30;
