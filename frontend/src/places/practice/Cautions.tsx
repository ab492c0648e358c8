/** What is to be read before a session begins. */
export function Cautions({ cautions }: { cautions: string[] }) {
  return (
    <section aria-label="Cautions" className="border-y border-line bg-paper px-4 py-3 sm:px-8">
      <h2 className="label-wide mb-1">Before you begin</h2>
      <ul className="grid gap-x-8 sm:grid-cols-2">
        {cautions.map((caution) => (
          <li key={caution} className="border-l-2 border-lamp pl-3 text-lead">
            {caution}
          </li>
        ))}
      </ul>
      <p className="mt-2 text-small text-stone">
        General information only. Local rules and the people in charge of a place decide.
      </p>
    </section>
  );
}
