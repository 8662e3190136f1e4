/** A file that somebody brought is no body; the message is for the maker. */
export class NotAModel extends Error {}
