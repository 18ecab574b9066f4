// Words that stand out too little from what they stand on, as WCAG 2 counts it: a list of sentences. axe says nothing of
// most of them: not of a single figure, of a label in a picture, and of what lies under the edge of a list that moves.
() => {
  const LEAST = 4.5;
  const LEAST_LARGE = 3; // from 24 px, or 18.66 px and bold
  const ROUNDING = 0.01;
  const pen = document.createElement("canvas").getContext("2d", { willReadFrequently: true });
  const known = new Map();
  const colour = (said) => {
    if (!known.has(said)) {
      pen.clearRect(0, 0, 1, 1);
      pen.fillStyle = said;
      pen.fillRect(0, 0, 1, 1);
      const [r, g, b, a] = pen.getImageData(0, 0, 1, 1).data;
      known.set(said, [r, g, b, a / 255]);
    }
    return known.get(said);
  };
  const faint = ([r, g, b, a], share) => [r, g, b, a * Number(share)];
  const over = ([r, g, b, a], under) => [...[r, g, b].map((x, i) => x * a + under[i] * (1 - a)), 1];
  const light = (seen) => {
    const linear = seen.slice(0, 3).map((x) => (x <= 10.31 ? x / 3294.6 : ((x / 255 + 0.055) / 1.055) ** 2.4));
    return 0.2126 * linear[0] + 0.7152 * linear[1] + 0.0722 * linear[2];
  };
  const ratio = (a, b) => (Math.max(light(a), light(b)) + 0.05) / (Math.min(light(a), light(b)) + 0.05);
  const holds = (box, { x, y }) => x >= box.left && x <= box.right && y >= box.top && y <= box.bottom;

  // shapes of the same picture that are drawn before the label and hold its middle
  const shapesUnder = (label, middle) =>
    [...label.closest("svg").querySelectorAll("rect, path, circle, ellipse, polygon")].filter((shape) => {
      const { fill, visibility } = getComputedStyle(shape);
      const before = shape.compareDocumentPosition(label) & Node.DOCUMENT_POSITION_FOLLOWING;
      if (!before || fill === "none" || fill.startsWith("url") || visibility === "hidden") return false;
      if (!holds(shape.getBoundingClientRect(), middle)) return false;
      return shape.isPointInFill(new DOMPoint(middle.x, middle.y).matrixTransform(shape.getScreenCTM().inverse()));
    });
  // what marks the choice of several is a neighbour that lies under it
  const liesUnder = (element, middle) =>
    [...(element.parentElement?.children ?? [])].filter(
      (other) =>
        other !== element &&
        getComputedStyle(other).position === "absolute" &&
        holds(other.getBoundingClientRect(), middle),
    );

  const FIELDS = "textarea, select, input:not([type=hidden], [type=radio], [type=checkbox], [type=range], [type=file])";
  const found = [];
  for (const element of document.body.querySelectorAll("*")) {
    const field = element.matches(FIELDS);
    const written = [...element.childNodes].filter((node) => node.nodeType === Node.TEXT_NODE);
    const said = field
      ? element.value || element.placeholder || ""
      : written.some((node) => node.textContent.trim()) && element.textContent;
    const letters = document.createRange();
    letters.selectNodeContents(element);
    const box = (field ? element : letters).getBoundingClientRect();
    if (!said || box.width < 2 || element.closest("style, script, title, desc, option")) continue;
    if (element.closest(":disabled, [aria-disabled=true], [data-disabled]")) continue;
    if (!element.checkVisibility({ opacityProperty: true, visibilityProperty: true })) continue;
    const middle = { x: (box.left + box.right) / 2, y: (box.top + box.bottom) / 2 };
    const path = [];
    for (let at = element; at; at = at.parentElement) path.unshift(at);
    if (path.some((at) => at instanceof HTMLElement && at.offsetWidth <= 1 && at.offsetHeight <= 1)) continue; // read out

    const own = getComputedStyle(element, field && !element.value ? "::placeholder" : null);
    const picture = element instanceof SVGElement;
    let ground = [255, 255, 255, 1];
    let certain = true;
    const groups = [];
    for (const at of path) {
      const { opacity, backgroundColor, backgroundImage } = getComputedStyle(at);
      if (opacity !== "1") groups.push([ground, opacity]);
      if (at instanceof SVGElement && at.tagName !== "svg") continue;
      for (const other of picture ? [] : liesUnder(at, middle))
        ground = over(colour(getComputedStyle(other).backgroundColor), ground);
      const on = colour(backgroundColor);
      certain = (certain || on[3] === 1) && backgroundImage === "none";
      ground = over(on, ground);
    }
    if (!certain) {
      found.push(`on a picture, of which nothing can be said: ${said.trim().slice(0, 30)}`);
      continue;
    }
    let text = picture ? faint(colour(own.fill), own.fillOpacity) : colour(own.color);
    if (picture && own.stroke !== "none" && own.paintOrder.startsWith("stroke")) ground = over(colour(own.stroke), ground);
    else
      for (const shape of picture ? shapesUnder(element, middle) : []) {
        const { fill, fillOpacity, opacity } = getComputedStyle(shape);
        ground = over(faint(colour(fill), fillOpacity * opacity), ground);
      }
    text = over(text, ground);
    for (const [under, opacity] of groups.reverse())
      [text, ground] = [text, ground].map((seen) => over(faint(seen, opacity), under));
    const size = Number.parseFloat(own.fontSize);
    const least = size >= 24 || (size >= 18.66 && Number(own.fontWeight) >= 700) ? LEAST_LARGE : LEAST;
    const seen = ratio(text, ground);
    if (seen < least - ROUNDING) found.push(`${seen.toFixed(2)} : 1: ${said.trim().slice(0, 30)}`);
  }
  return [...new Set(found)];
}
