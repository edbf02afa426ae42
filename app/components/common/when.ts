const TIME = new Intl.DateTimeFormat(undefined, { timeStyle: "short" });
const DAY_AND_TIME = new Intl.DateTimeFormat(undefined, { dateStyle: "medium", timeStyle: "short" });

/** A moment as people say it: the time alone where it is of today. */
export function whenWas(milliseconds: number, now = new Date()): string {
  const moment = new Date(milliseconds);
  return (moment.toDateString() === now.toDateString() ? TIME : DAY_AND_TIME).format(moment);
}
