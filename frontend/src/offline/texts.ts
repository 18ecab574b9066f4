/**
 * Texts that the browser keeps for this program: `local` until they are taken away, `tab` for as long as the tab is open.
 * A browser may keep nothing, or have no room left: nobody who writes is stopped by that, and whoever must know is told.
 */
function texts(room: () => Storage) {
  return {
    /** The text of a name; null if there is none. */
    read(name: string): string | null {
      try {
        return room().getItem(name);
      } catch {
        return null;
      }
    },
    /** Whether the text is kept now. */
    keep(name: string, text: string): boolean {
      try {
        room().setItem(name, text);
        return true;
      } catch {
        return false;
      }
    },
    drop(name: string) {
      try {
        room().removeItem(name);
      } catch {
        // what keeps nothing has nothing to let go
      }
    },
    /** Names that begin so. */
    names(prefix: string): string[] {
      try {
        return Object.keys(room()).filter((name) => name.startsWith(prefix));
      } catch {
        return [];
      }
    },
  };
}

export const local = texts(() => localStorage);
export const tab = texts(() => sessionStorage);
