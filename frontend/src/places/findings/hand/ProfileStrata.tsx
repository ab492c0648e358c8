import { useNavigate } from "react-router";
import { useProfile, type Profile, type ProfileLine } from "../../../api/hand";
import { usePractise } from "../../../api/progress";
import { kindWord, SHAKES, shareWords } from "./kinds";
import * as format from "../../../formats";
import { Button } from "../../../ui/Button";
import { useNotices } from "../../../ui/notices";
import { useWidth } from "../../../ui/useWidth";

type Props = { onTechnique: (key: string) => void; chosen: string | null };

const ROW_PX = 22;

/** Every technique at a glance: how fast it turns, laid up from the kinds of shake it is made of. */
export function ProfileStrata(props: Props) {
  const found = useProfile().data;
  if (!found || found.lines.length === 0) return null;
  return <Strata profile={found} {...props} />;
}

function Strata({ profile, onTechnique, chosen }: Props & { profile: Profile }) {
  const [box, width] = useWidth<HTMLSpanElement>();
  const most = Math.max(...profile.lines.map((one) => one.high));
  return (
    <section aria-label="Profile" className="border-t border-line px-4 py-3 sm:px-8">
      <h2 className="label-wide">Your profile</h2>
      <p className="flex flex-wrap gap-x-4 text-note text-stone">
        Degrees a second, by kinds of shake. Thin lines hold the mean nine times in ten.
        {SHAKES.map((kind) => (
          <span key={kind.name}>
            <i
              className="mr-1 inline-block size-2.5 border border-line"
              style={{ background: kind.colour }}
            />
            {kind.words}
          </span>
        ))}
      </p>
      <div className="grid grid-cols-1 gap-x-10 gap-y-4 xl:grid-cols-[minmax(0,1fr)_380px]">
        <ul>
          {profile.lines.map((one, index) => (
            <li key={one.key} className="border-t border-line">
              <button
                type="button"
                aria-pressed={one.key === chosen}
                onClick={() => onTechnique(one.key)}
                className="grid w-full grid-cols-1 items-center gap-x-3 py-0.5 text-left hover:bg-paper aria-pressed:bg-paper md:grid-cols-[230px_minmax(0,1fr)_190px]"
              >
                <span className="truncate leading-tight">
                  <b className="font-semibold">{one.name}</b>{" "}
                  <span className="text-small text-stone">{one.drill}</span>
                </span>
                <span ref={index === 0 ? box : undefined} className="block">
                  <Bar one={one} most={most} width={width} />
                </span>
                <span className="text-small text-stone">
                  {format.degreesASecond(one.deg_s)}, up to {format.longestLens(one.longest_mm)}
                  {one.hint && ", a hint"}
                  <span className="sr-only">: {shareWords(one.shares)}</span>
                </span>
              </button>
            </li>
          ))}
        </ul>
        <Gains profile={profile} />
      </div>
    </section>
  );
}

function Bar({ one, most, width }: { one: ProfileLine; most: number; width: number }) {
  const full = (one.deg_s / most) * width;
  const edges = one.shares.map((_, k) =>
    one.shares.slice(0, k).reduce((sum, share) => sum + share, 0),
  );
  return (
    <svg width={Math.max(width, 1)} height={ROW_PX} aria-hidden="true" className="block">
      {one.shares.map((share, k) => (
        <rect
          key={k}
          x={(edges[k] ?? 0) * full}
          width={share * full}
          y={5}
          height={ROW_PX - 10}
          fill={SHAKES[k]?.colour}
          stroke="var(--line)"
        />
      ))}
      <line
        x1={(one.low / most) * width}
        x2={(one.high / most) * width}
        y1={ROW_PX / 2}
        y2={ROW_PX / 2}
        stroke="var(--ink)"
      />
    </svg>
  );
}

/** The drills that would gain most, each practised in one step. */
function Gains({ profile }: { profile: Profile }) {
  const practise = usePractise();
  const navigate = useNavigate();
  const { fail } = useNotices();
  if (profile.gains.length === 0) return null;
  return (
    <div>
      <h3 className="font-semibold">What would gain most</h3>
      {profile.strongest && (
        <p className="text-note text-stone">Most of what shows is {kindWord(profile.strongest)}.</p>
      )}
      <ol>
        {profile.gains.map((one) => (
          <li
            key={one.drill_key}
            className="flex items-center justify-between gap-3 border-t border-line py-1.5"
          >
            <span>
              <b className="font-semibold">{one.drill}</b>
              <span className="block text-small text-stone">
                {one.over === null
                  ? `Works on ${kindWord(one.kind)}; new to you.`
                  : `Usually ${format.gust(one.over)} over its mark.`}
              </span>
            </span>
            <Button
              disabled={practise.isPending}
              onClick={() =>
                practise.mutate(
                  { key: one.drill_key, variation: null },
                  {
                    onError: fail,
                    onSuccess: (kept) => void navigate(`/practice/${kept.session_id}`),
                  },
                )
              }
            >
              Practise
            </Button>
          </li>
        ))}
      </ol>
    </div>
  );
}
