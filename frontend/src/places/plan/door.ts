/** What other places may use of Plan. */
export { FirstLook, FirstLookButton } from "./FirstLook";
export { useSaveBrief } from "./useSaveBrief";
