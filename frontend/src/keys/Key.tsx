/** A key on the keyboard, as a hint; hidden on narrow screens, which have none. */
export function Key({ children }: { children: string }) {
  return (
    <kbd
      aria-hidden="true"
      className="rounded hidden border border-current/40 px-1 font-sans text-fine leading-[15px] font-medium sm:inline-block"
    >
      {children}
    </kbd>
  );
}
