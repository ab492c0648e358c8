import type { Archive } from "../../api/settings";
import * as format from "../../formats";

const MOST_NAMED = 5;

/** What an archive lacks, a sentence each. words: which archive, as the subject of a sentence. */
export function lackWords(of: Archive, words: string): string[] {
  const { missing, changed, strays, uploads } = of;
  const lines: string[] = [];
  if (missing.length > 0)
    lines.push(
      `${words} lacks ${format.counted(missing.length, "original")}: ${named(missing)}. ` +
        "The files are not in the library. Bring them in again if you still have them.",
    );
  if (changed && changed.length > 0)
    lines.push(
      `${words} has ${format.counted(changed.length, "original")} that changed since it was brought in: ` +
        `${named(changed)}. Compare with another copy of the film.`,
    );
  if (uploads > 0)
    lines.push(
      `${words} leaves out ${format.counted(uploads, "film")} that ${uploads === 1 ? "is" : "are"} still arriving.`,
    );
  if (strays.length > 0)
    lines.push(
      `${words} leaves out what Ridgewind did not put into the library: ${named(strays)}.`,
    );
  return lines;
}

function named(names: readonly string[]): string {
  const first = names.slice(0, MOST_NAMED).join(", ");
  return names.length > MOST_NAMED ? `${first} and ${names.length - MOST_NAMED} more` : first;
}
