import { CalendarDays } from "lucide-react";
import { useEffect } from "react";
import { Link } from "react-router";
import { useDrills, type DrillItem } from "../../api/practice";
import { SmallBody } from "../../body/SmallBody";
import * as format from "../../formats";
import { FaultView } from "../../ui/FaultView";
import { useWidth } from "../../ui/useWidth";
import { PlanTabs } from "./PlanTabs";

const DAYS = 42;
const HEIGHT = 120;
const DAY_MS = 86_400_000;

/** What falls due in the weeks ahead, drawn as a ridge, and what is due now. */
export function WeeksPage() {
  const found = useDrills();
  useEffect(() => {
    document.title = "Weeks ahead · Ridgewind";
  }, []);
  if (found.isLoadingError) return <FaultView error={found.error} />;
  if (!found.data) return <p className="p-8 text-stone">Reading the drills…</p>;
  const known = found.data.drills.filter((item) => item.due_on !== null);
  const order = [...known].sort((a, b) => (b.overdue ?? 0) - (a.overdue ?? 0));
  return (
    <>
      <PlanTabs />
      <header className="flex flex-wrap items-baseline gap-x-4 gap-y-2 px-4 pt-4 pb-3 sm:px-8">
        <h1 className="title text-title leading-tight">Weeks ahead</h1>
        <p className="text-stone">
          A pass doubles the days until a drill is due again, a fail halves them.
        </p>
        {known.length > 0 && (
          <a
            href="/api/practice.ics"
            className="ml-auto inline-flex items-center gap-1.5 text-note font-semibold underline"
          >
            <CalendarDays size={15} aria-hidden /> For your calendar (iCalendar)
          </a>
        )}
      </header>
      {known.length === 0 ? (
        <p className="border-t border-line px-4 py-8 sm:px-8">
          Nothing is due yet: film a session first. Each drill then comes back in good time.
        </p>
      ) : (
        <>
          <WeekRidge items={known} today={found.data.today} />
          <ul className="border-t border-line">
            {order.map((item) => (
              <DueRow key={item.drill.key} item={item} today={found.data.today} />
            ))}
          </ul>
        </>
      )}
    </>
  );
}

function WeekRidge({ items, today }: { items: DrillItem[]; today: string }) {
  const [box, width] = useWidth<HTMLDivElement>();
  const counts = Array.from({ length: DAYS }, (_, day) => {
    const iso = new Date(Date.parse(today) + day * DAY_MS).toISOString().slice(0, 10);
    return items.filter((item) => item.ahead.includes(iso)).length;
  });
  const most = Math.max(4, ...counts);
  const step = Math.max(width - 64, 0) / DAYS;
  const base = HEIGHT - 22;
  const top = (count: number) => base - (count / most) * (base - 12);
  const path = counts
    .map((count, day) => {
      const x = 32 + day * step;
      return `L${x} ${base}L${x + step * 0.5} ${top(count)}L${x + step} ${base}`;
    })
    .join("");
  return (
    <div ref={box} className="border-y border-line bg-paper">
      {width > 0 && (
        <svg
          width={width}
          height={HEIGHT}
          role="img"
          aria-label={`In the next six weeks ${counts.reduce((a, b) => a + b, 0)} drills fall due`}
        >
          <path d={`M32 ${base}${path}Z`} fill="var(--ridge-3)" stroke="var(--ridge-5)" />
          {Array.from({ length: DAYS / 7 }, (_, week) => (
            <g key={week}>
              <line
                x1={32 + week * 7 * step}
                x2={32 + week * 7 * step}
                y1="8"
                y2={base}
                stroke="var(--line)"
              />
              <text
                className="text-fine"
                x={36 + week * 7 * step}
                y={HEIGHT - 6}
                fill="var(--stone)"
              >
                {week === 0 ? "this week" : `+${week}`}
              </text>
            </g>
          ))}
        </svg>
      )}
    </div>
  );
}

function DueRow({ item, today }: { item: DrillItem; today: string }) {
  const days = Math.round((Date.parse(item.due_on ?? today) - Date.parse(today)) / DAY_MS);
  const words = days <= 0 ? "due now" : days === 1 ? "due tomorrow" : `due in ${days} days`;
  return (
    <li className="relative flex items-center gap-4 border-b border-line px-4 py-1.5 hover:bg-paper sm:px-8">
      <SmallBody drill={item.drill.key} className="h-12 w-12" />
      <div className="min-w-0 flex-1">
        <Link
          to={`/plan/drills/${item.drill.key}`}
          className="font-semibold after:absolute after:inset-0"
        >
          {item.drill.name}
        </Link>
        <p className="text-small text-stone">
          last filmed {format.when(item.last_on).day} · {item.passes} of {item.takes} takes passed
        </p>
      </div>
      <span className={days <= 0 ? "font-semibold" : "text-stone"}>{words}</span>
    </li>
  );
}
