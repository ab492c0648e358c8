import { PULL_WORDS, PULLS } from "../../live/pulls";
import type { SessionTake, TakeNote } from "../../api/practice";
import { Key } from "../../keys/Key";

type Props = { take: SessionTake; onNote: (note: TakeNote) => void };

const WIND = ["none", "light", "some", "strong"];

/** How the last take was: one tap each, all of it optional. */
export function NoteBar({ take, onNote }: Props) {
  return (
    <section
      aria-label={`Notes on take ${take.position + 1}`}
      className="flex flex-wrap items-center justify-center gap-x-6 gap-y-1 border-t border-line px-4 py-1 text-lead sm:gap-y-2 sm:py-2"
    >
      <span className="text-stone">Take {take.position + 1}:</span>
      <Group words="felt">
        <Tap
          on={take.felt === "good"}
          words="good"
          hint="G"
          onClick={() => onNote({ felt: "good" })}
        />
        <Tap
          on={take.felt === "bad"}
          words="bad"
          hint="B"
          onClick={() => onNote({ felt: "bad" })}
        />
      </Group>
      <Group words="tired">
        {[1, 2, 3, 4, 5].map((n) => (
          <Tap
            key={n}
            on={take.fatigue === n}
            words={String(n)}
            onClick={() => onNote({ fatigue: n })}
          />
        ))}
      </Group>
      <Group words="wind" hint="W">
        {WIND.map((words, n) => (
          <Tap key={words} on={take.wind === n} words={words} onClick={() => onNote({ wind: n })} />
        ))}
      </Group>
      <Group words="strap" hint="S">
        {PULLS.map((n) => (
          <Tap
            key={n}
            on={take.tension === n}
            words={n === 1 ? `${n} ${PULL_WORDS[n]}` : String(n)}
            onClick={() => onNote({ tension: n })}
          />
        ))}
      </Group>
    </section>
  );
}

type GroupProps = { words: string; hint?: string; children: React.ReactNode };

function Group({ words, hint, children }: GroupProps) {
  return (
    <span role="group" aria-label={words} className="inline-flex items-center gap-1">
      <span className="mr-1 text-stone">
        {words} {hint && <Key>{hint}</Key>}
      </span>
      {children}
    </span>
  );
}

type TapProps = { on: boolean; words: string; hint?: string; onClick: () => void };

function Tap({ on, words, hint, onClick }: TapProps) {
  return (
    <button
      type="button"
      aria-pressed={on}
      onClick={onClick}
      className={`rounded inline-flex min-h-[48px] min-w-[48px] items-center justify-center gap-1.5 border px-2.5 py-1.5 font-medium sm:min-h-0 ${on ? "border-ink bg-ink text-paper" : "border-line bg-paper hover:border-ridge-2"}`}
    >
      {words} {hint && <Key>{hint}</Key>}
    </button>
  );
}
