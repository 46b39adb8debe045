/** Days as they are written and said. */

const NAMES = ["Sun", "Mon", "Tue", "Wed", "Thu", "Fri", "Sat"];
const MONTHS = ["Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec"];

/** So many days after a day, as year, month and day. */
export function dayAfter(day: string, days: number): string {
  const at = new Date(`${day}T12:00:00Z`);
  at.setUTCDate(at.getUTCDate() + days);
  return at.toISOString().slice(0, 10);
}

/** "Fri 4 Dec" */
export function dayName(day: string): string {
  const at = new Date(`${day}T12:00:00Z`);
  return `${NAMES[at.getUTCDay()]} ${at.getUTCDate()} ${MONTHS[at.getUTCMonth()]}`;
}

/** How far this machine's clock is ahead of UTC on a day, minutes. */
export const utcOffsetMin = (day: string): number =>
  -new Date(day ? `${day}T12:00:00` : Date.now()).getTimezoneOffset();
