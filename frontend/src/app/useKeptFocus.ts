import { useEffect } from "react";

/** Something that has the focus or stands around it, with its neighbours: those after it first, the nearest first. */
interface Place {
  element: HTMLElement;
  beside: Element[];
}

const PARTS = "main, aside, header, [role=dialog]";
const PRESSED = "button, input, select, textarea, summary, a[href], [role=slider], [role=option]";

/**
 * Keep the place of the keyboard. Where what has the focus goes away by its own press, the focus goes to what stands there
 * next, so that Tab goes on from it; what cannot be pressed while it waits for an answer has the focus again after it. What
 * is left by hand is left.
 */
export function useKeptFocus() {
  useEffect(() => {
    let path: Place[] = [];
    let waited = false;
    const come = ({ target }: FocusEvent) => {
      path = target instanceof HTMLElement ? pathOf(target) : [];
      waited = false;
    };
    const leave = ({ target, relatedTarget }: FocusEvent) => {
      if (relatedTarget !== null || !(target instanceof HTMLElement)) return;
      // what is taken away loses the focus before it is gone
      queueMicrotask(() => {
        if (target.isConnected && !target.matches(":disabled") && onNothing()) path = [];
      });
    };
    const look = () => {
      const held = path[0]?.element;
      if (held?.isConnected && held.matches(":disabled")) waited = true;
      else if (held && onNothing() && (waited || !held.isConnected))
        (held.isConnected ? held : standIn(path))?.focus({ preventScroll: true });
    };
    const observer = new MutationObserver(look);
    observer.observe(document.body, {
      subtree: true,
      childList: true,
      attributes: true,
      attributeFilter: ["disabled"],
    });
    document.addEventListener("focusin", come);
    document.addEventListener("focusout", leave);
    return () => {
      observer.disconnect();
      document.removeEventListener("focusin", come);
      document.removeEventListener("focusout", leave);
    };
  }, []);
}

const onNothing = () => document.activeElement === document.body || document.activeElement === null;

function pathOf(element: HTMLElement): Place[] {
  const found: Place[] = [];
  for (let at: HTMLElement | null = element; at && at !== document.body; at = at.parentElement) {
    const all = [...(at.parentElement?.children ?? [])];
    const here = all.indexOf(at);
    found.push({ element: at, beside: [...all.slice(here + 1), ...all.slice(0, here).reverse()] });
  }
  return found;
}

/** What has the focus in the place of what is gone: a neighbour that nothing is pressed with, else what stood around it. */
function standIn(path: readonly Place[]): HTMLElement | null {
  const at = path.findIndex(({ element }) => element.isConnected);
  const around = path[at]?.element;
  if (!around?.closest(PARTS)) return null;
  const beside = path[at - 1]?.beside.find((one) => one.parentElement === around && !one.matches(PRESSED));
  const found = beside instanceof HTMLElement ? beside : around;
  if (!found.hasAttribute("tabindex")) {
    found.tabIndex = -1;
    found.addEventListener("blur", () => found.removeAttribute("tabindex"), { once: true });
  }
  return found;
}
