import { FirstLookButton } from "../../plan/door";
import { Chooser } from "./Chooser";

/** The first page: what to do before there is anything to see. */
export function EmptyTakes() {
  return (
    <div className="mx-auto max-w-2xl px-4 py-14 sm:px-8">
      <svg viewBox="0 0 640 130" className="mb-8 w-full" aria-hidden="true">
        <path
          d="M0 96 60 74l40 10 70-46 60 30 50-16 60 34 80-54 70 40 60-14 90 26v46H0z"
          fill="var(--ridge-1)"
        />
        <path
          d="M0 104l80-18 70 10 80-26 70 22 90-14 80 20 90-12 80 10v34H0z"
          fill="var(--ridge-2)"
        />
        <path d="M0 114l110-10 120 8 110-10 120 10 180-6v24H0z" fill="var(--ridge-4)" />
        <line x2="640" y1="66" y2="66" stroke="var(--ink)" strokeDasharray="2 3" />
      </svg>
      <h2 className="title mb-2 text-title">Drop a test take on this window</h2>
      <p className="mb-5 text-stone">
        Any clip from a camera or phone, a few seconds long. Ridgewind measures how much it shakes,
        finds where it is calm, and says whether it is smooth enough. Nothing leaves this computer,
        and nothing needs to be filled in first: lens, screen and delivery rate have usual values
        that you can correct afterwards.
      </p>
      <Chooser />
      <p className="mt-6 mb-3 border-t border-line pt-5 text-stone">
        Nothing filmed yet? Six short drills, run hands-free, show how steady your own hand is and
        what would help it most.
      </p>
      <FirstLookButton />
    </div>
  );
}
