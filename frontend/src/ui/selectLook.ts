/** What a choice is given, and how it looks while it is closed. */
export type SelectProps<T extends string> = {
  label: string;
  value: T;
  options: readonly { value: T; words: string }[];
  onChange: (value: T) => void;
  wide?: boolean;
};

export const triggerLook = (wide: boolean) =>
  `rounded inline-flex items-center gap-1 border border-control bg-paper px-2 text-note font-medium hover:border-ridge-2 ${wide ? "h-[30px] w-full justify-between" : "h-[28px]"} max-w-full [&>span]:truncate`;
