import type { TakeResult } from "../../api/practice";

/** Who films: the shooter's own camera, whose films are brought in later, or come by themselves to a
 * watched folder; or one that is connected. */
export type CameraChoice = "none" | "folder" | "connected" | "simulated";
export const CAMERAS = [
  { value: "none", words: "My own camera" },
  { value: "folder", words: "Its films come by themselves" },
  { value: "connected", words: "Connected" },
  { value: "simulated", words: "Simulated" },
] as const satisfies { value: CameraChoice; words: string }[];

/** Whether films come while the session runs, so that what came of them is told. */
export const isTold = (camera: CameraChoice) => camera !== "none";

/** What is said of a take in the rest after it. */
export type SayChoice = "advice" | "figure" | "silent";
export const SAYINGS = [
  { value: "advice", words: "Figure and advice" },
  { value: "figure", words: "Figure only" },
  { value: "silent", words: "Nothing" },
] as const satisfies { value: SayChoice; words: string }[];

/** What tells steadiness while a hold is filmed. */
export type MeterChoice = "none" | "sensor" | "simulated-sensor";
export const METERS = [
  { value: "none", words: "Off" },
  { value: "sensor", words: "This phone’s motion" },
  { value: "simulated-sensor", words: "Simulated phone" },
] as const satisfies { value: MeterChoice; words: string }[];

/** The words that are said of a take. */
export function saidOf(result: TakeResult, say: SayChoice): string {
  if (say === "silent") return "";
  return say === "figure" ? result.figure : `${result.figure} ${result.advice}`.trim();
}
