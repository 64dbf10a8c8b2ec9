import type { Location } from 'react-router';

/**
 * Where the page is going to while the part of the program for it is still on the way. A component is told of it only
 * when it is drawn anew, which may be after the next touch; this is true at once.
 */
export const going: { to: Location | undefined } = { to: undefined };
