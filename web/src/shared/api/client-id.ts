/** This page, so that it is not told of what it did itself. */
export const CLIENT = crypto.randomUUID()
