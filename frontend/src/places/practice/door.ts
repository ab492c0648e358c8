/** What other places may use of Practice. */
export { stepsOf } from "./steps";
export { useAwake } from "./useAwake";
