import type { NoteChange } from "./practice";
import { waitingStore } from "./waiting";

const notes = waitingStore<NoteChange>("ridgewind-session-notes");

/** Keep a note of a session in the browser until it has been sent. */
export const keepWaiting = notes.keep;
/** A note was sent, or refused. */
export const dropWaiting = notes.drop;
/** Notes that an earlier opening of the page left, taken out to be sent now. */
export const takeLeft = notes.takeLeft;
