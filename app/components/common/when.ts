const TIME = new Intl.DateTimeFormat(undefined, { timeStyle: "short" });
const DAY_AND_TIME = new Intl.DateTimeFormat(undefined, { dateStyle: "medium", timeStyle: "short" });

/** A time as people say it: without the date if it is today. */
export function whenWas(milliseconds: number, now = new Date()): string {
  const moment = new Date(milliseconds);
  return (moment.toDateString() === now.toDateString() ? TIME : DAY_AND_TIME).format(moment);
}
