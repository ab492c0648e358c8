/** What other places may use of Takes. */
export { Arrivals } from "./list/Arrivals";
export { useImports } from "./list/imports";
