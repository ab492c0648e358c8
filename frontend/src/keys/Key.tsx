type KeyProps = {
  children: string;
  /** It is what the line is about, and so is seen on every screen and read out. */
  told?: boolean;
};

/** A key on the keyboard. As a hint beside a control it is hidden on narrow screens, which have
 * none, and from screen readers, to whom the control has told its own name. */
export function Key({ children, told = false }: KeyProps) {
  return (
    <kbd
      aria-hidden={!told}
      className={`${told ? "inline-block" : "hidden sm:inline-block"} rounded border border-current/40 px-1 font-sans text-fine leading-[15px] font-medium`}
    >
      {children}
    </kbd>
  );
}
