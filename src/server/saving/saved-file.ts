/** A file of a saved site: its path in the folder with "/", and what it holds. */
export interface SavedFile {
  path: string;
  /** Text in ASCII, or the file whose bytes it has. */
  content: string | { copyOf: string };
}

/**
 * Hands out file names. One that differs from another only in case, or begins with a dot, would be
 * lost on some disks or on loading: it is given another.
 */
export class FileNames {
  private readonly taken = new Set<string>();

  /** A path in ASCII for `folder/name` and an ending. */
  take(folder: string, name: string, ending: string): string {
    const plain = name
      .split('/')
      .map((part) => part.replace(/[^A-Za-z0-9._#-]/g, '-').replace(/^\./, '-.'))
      .join('/');
    for (let n = 1; ; n++) {
      const path = `${folder}/${plain}${n === 1 ? '' : `-${n}`}${ending}`;
      const folded = path.toLowerCase();
      if (this.taken.has(folded) || this.standsInAFile(folded)) continue;
      this.taken.add(folded);
      return path;
    }
  }

  private standsInAFile(path: string): boolean {
    const parts = path.split('/');
    return parts.some((_, i) => i > 0 && this.taken.has(parts.slice(0, i).join('/')));
  }
}
