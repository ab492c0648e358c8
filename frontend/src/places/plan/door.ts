/** What other places may use of Plan. */
export { useSaveBrief } from "./useSaveBrief";
