/** What the server says of itself: lines of JSON on its error output, each with its time and its place. */
import { destination, pino } from 'pino';

/** Written before going on: what is said of a failure is there though the server ends by it. */
export const log = pino(
  { name: 'mold-stamp', level: process.env['LOG_LEVEL'] ?? 'info' },
  destination({ dest: 2, sync: true }),
);
