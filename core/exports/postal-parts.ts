/** Lines that an address has at most, its country included. */
export const ADDRESS_LINES = 7;
