/** Figures with their names, one a line. A fact may warn. */
export type Fact = { words: string; value: string; warns?: boolean };

export function Facts({ facts }: { facts: Fact[] }) {
  return (
    <dl className="grid grid-cols-[1fr_auto] gap-x-4 gap-y-1 text-note">
      {facts.map((fact) => (
        <div key={fact.words} className="contents">
          <dt className="text-stone">{fact.words}</dt>
          <dd className={`text-right font-semibold ${fact.warns ? "text-ember-deep" : ""}`}>
            {fact.value}
          </dd>
        </div>
      ))}
    </dl>
  );
}
