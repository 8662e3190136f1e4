/** The file cannot be used as a body; the message is for the maker. */
export class NotAModel extends Error {}
