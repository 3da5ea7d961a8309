/** What a person has to change before the server can start; trying again is of no use. */
export class CannotStart extends Error {}
