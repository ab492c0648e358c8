import type { RivalLine, ShotDoubt } from "../../../api/client";

/** What is asked, or told, of the motions of a shot. */
export function question(asked: ShotDoubt): string {
  const [first, second] = asked.rivals;
  if (asked.doubt === "noise") {
    return "It shakes hardly more than the measurement errs. If you know that it is the camera, say so.";
  }
  if (asked.doubt === "alone" && asked.rivals.length < 2) {
    return `Only what is ${first?.where ?? "in the picture"} can be followed, and it does not reach the picture’s edges. Is it the camera that moved, or they?`;
  }
  if (asked.doubt !== null) {
    return `What is ${first?.where} and what is ${second?.where} move apart. Which of them is the background, that moves only because the camera does?`;
  }
  if (asked.by_log) {
    return `The motion log turns as what is ${first?.where} does: that is the background.`;
  }
  if (asked.said) return `You said that what is ${first?.where} is the background.`;
  const others = asked.rivals.slice(1).filter((one) => one.gust !== null);
  const places = [...new Set(others.map((one) => one.where))].join(" and ");
  return `What is ${first?.where} is taken for the background; what is ${places} moves by itself. If that is wrong, say which is the background:`;
}

/** What a button says that names a motion as the background's. */
export function background(rival: RivalLine, count: number): string {
  return count < 2 ? "It is the camera" : `What is ${rival.where}`;
}
