/** A fault that a person has to remove before the server can start; a retry is of no use. */
export class CannotStart extends Error {}
