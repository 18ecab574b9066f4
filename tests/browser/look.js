// What is wrong with the page as it stands: a list of sentences. axe has to be loaded. `touch`: whether fingers press here;
// `contrast`: whether the colours are ours (forced ones are the system's); `colours`, `sides`: whether nothing else is looked
// at than colours, or than what runs over the side, is cut or is too small; `axes`: whether axe looks too.
async ({ touch, contrast = true, colours = false, sides = false, axes = true }) => {
  const LEAST_TEXT = 10.99; // px
  const TARGET = 43.5; // px high, at least half as wide
  const TOUCHES = { x: 0.5, y: 2.5 }; // px by which boxes of two labels may lie over each other
  const found = [];
  const told = async (options) => {
    // preloading fetches every style sheet anew, for rules about media that are not here
    const { violations } = await axe.run(document, { resultTypes: ["violations"], preload: false, ...options });
    for (const rule of violations)
      for (const node of rule.nodes) found.push(`${rule.id}: ${node.target.join(" ")}`);
    return [...new Set(found)];
  };
  if (colours) return told({ runOnly: ["color-contrast"] });
  const across = document.documentElement.clientWidth;
  const words = (element) => (element.getAttribute("aria-label") || element.textContent || "").trim().slice(0, 30);
  const hidden = (element) => {
    for (let at = element; at; at = at.parentElement) {
      const style = getComputedStyle(at);
      if (style.visibility === "hidden" || style.display === "none" || style.opacity === "0") return true;
      const box = at.getBoundingClientRect();
      if (box.width <= 1 && box.height <= 1 && !["svg", "g"].includes(at.tagName)) return true;
    }
    return false;
  };
  const movesWithin = (element) => {
    for (let at = element; at; at = at.parentElement)
      if (at.id !== "work" && ["auto", "scroll"].includes(getComputedStyle(at).overflowX)) return true;
    return false;
  };

  // by the nearest box that hides what runs over it, unless it ends in dots
  const cut = (element, box) => {
    if (box.right <= 0 || box.bottom <= 0) return false; // a skip link comes in when it has the focus
    for (let at = element; at && at.id !== "work"; at = at.parentElement) {
      const style = getComputedStyle(at);
      if (["auto", "scroll"].includes(style.overflowX) || style.textOverflow === "ellipsis") return false;
      const by = at.getBoundingClientRect();
      if (style.overflowX !== "visible") return box.right > by.right + 1 || box.left < by.left - 1;
    }
    return false;
  };
  const pen = document.createElement("canvas").getContext("2d");

  if (document.documentElement.scrollWidth > across + 1)
    found.push(`the page is ${document.documentElement.scrollWidth} px wide`);
  const texts = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
  for (let node = texts.nextNode(); node; node = texts.nextNode()) {
    const element = node.parentElement;
    if (!node.textContent.trim() || element.closest("style,script,title,desc,option") || hidden(element)) continue;
    let size = Number.parseFloat(getComputedStyle(element).fontSize);
    const matrix = element.closest("svg") && element.getScreenCTM?.();
    if (matrix) size *= Math.hypot(matrix.a, matrix.b);
    if (size < LEAST_TEXT) found.push(`text of ${size.toFixed(1)} px: ${words(element)}`);
    const box = element.getBoundingClientRect();
    if (box.width && box.right > across + 1 && !movesWithin(element)) found.push(`over the side: ${words(element)}`);
    const letters = document.createRange();
    letters.selectNodeContents(node);
    if (!element.closest("svg") && cut(element, letters.getBoundingClientRect())) found.push(`cut: ${words(element)}`);
  }
  const ARROW = 18; // px of a select
  for (const field of document.querySelectorAll("select, input:is([type=text],[type=search],[type=email],:not([type]))")) {
    const style = getComputedStyle(field);
    pen.font = `${style.fontWeight} ${style.fontSize} ${style.fontFamily}`;
    const choice = field.matches("select");
    const edges = Math.max(Number.parseFloat(style.paddingRight), choice ? ARROW : 0) + Number.parseFloat(style.paddingLeft);
    const room = field.clientWidth - edges;
    const said = choice ? (field.selectedOptions[0]?.label ?? "") : field.value || field.placeholder;
    if (!hidden(field) && pen.measureText(said).width > room + 1) found.push(`cut in its field: ${said}`);
  }
  const pressed = "a[href],button,input:not([type=hidden],[type=file]),select,textarea,summary,[role=slider],[role=button]";
  for (const element of document.querySelectorAll(pressed))
    if (!hidden(element) && element.getBoundingClientRect().right > across + 1 && !movesWithin(element))
      found.push(`over the side: ${words(element) || element.tagName}`);
  // words over words, or over what is pressed; not in pictures, in a field with its unit, and what stays while the rest moves
  const within = (element, { left, right, top, bottom }) => {
    for (let at = element; at && at.id !== "work"; at = at.parentElement) {
      if (getComputedStyle(at).overflow === "visible") continue;
      const by = at.getBoundingClientRect();
      [left, right] = [Math.max(left, by.left), Math.min(right, by.right)];
      [top, bottom] = [Math.max(top, by.top), Math.min(bottom, by.bottom)];
    }
    return { left, right, top, bottom };
  };
  const apart = (element) => {
    if (element.closest("svg, .mantine-Input-wrapper, [role=slider]")) return true;
    for (let at = element; at && at.id !== "work"; at = at.parentElement)
      if (["fixed", "sticky"].includes(getComputedStyle(at).position)) return true;
    return false;
  };
  const boxes = [];
  for (const node of document.querySelectorAll("#work *, #phone *")) {
    const own = [...node.childNodes].filter((part) => part.nodeType === Node.TEXT_NODE && part.textContent.trim());
    const drawn = getComputedStyle(node); // one that looks like its words alone has them for its box
    const bare = drawn.backgroundColor === "rgba(0, 0, 0, 0)" && drawn.borderTopWidth === "0px";
    const pressable = !bare && node.matches("button, input, select, textarea");
    if ((own.length === 0 && !pressable) || apart(node)) continue;
    if (!node.checkVisibility({ opacityProperty: true, visibilityProperty: true })) continue;
    const text = document.createRange();
    for (const part of own) {
      text.selectNodeContents(part);
      for (const box of text.getClientRects()) boxes.push({ element: node, box: within(node, box) });
    }
    if (pressable) boxes.push({ element: node, box: within(node.parentElement, node.getBoundingClientRect()) });
  }
  boxes.sort((a, b) => a.box.top - b.box.top);
  for (const [i, one] of boxes.entries())
    for (let j = i + 1; j < boxes.length && boxes[j].box.top < one.box.bottom - TOUCHES.y; j++) {
      const other = boxes[j];
      if (one.element.contains(other.element) || other.element.contains(one.element)) continue;
      const x = Math.min(one.box.right, other.box.right) - Math.max(one.box.left, other.box.left);
      const y = Math.min(one.box.bottom, other.box.bottom) - other.box.top;
      if (x > 2 && y > TOUCHES.y) found.push(`one over the other: ${words(one.element)} | ${words(other.element)}`);
    }
  if (sides) return found;

  for (const picture of document.querySelectorAll("svg")) {
    const labels = [...picture.querySelectorAll("text")]
      .filter((text) => text.textContent.trim() && !text.closest("[aria-hidden=true]") && !hidden(text))
      .map((text) => [text.textContent.trim(), text.getBoundingClientRect()]);
    for (const [i, [one, a]] of labels.entries())
      for (const [other, b] of labels.slice(i + 1)) {
        const x = Math.min(a.right, b.right) - Math.max(a.left, b.left);
        const y = Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top);
        if (x > TOUCHES.x && y > TOUCHES.y) found.push(`labels touch: ${one.slice(0, 20)} | ${other.slice(0, 20)}`);
      }
  }

  for (const element of touch ? document.querySelectorAll(pressed) : []) {
    if (hidden(element) || (element.tagName === "A" && getComputedStyle(element).display === "inline")) continue;
    let area = element; // a choice is pressed by its label, a dial on its whole track
    if (element.matches("[type=radio],[type=checkbox]")) area = element.closest("label") || element.labels[0] || element;
    if (element.matches("[role=slider]")) area = element.closest(".mantine-Slider-trackContainer") || element;
    const box = area.getBoundingClientRect();
    if (box.width && (box.height < TARGET || box.width < TARGET / 2))
      found.push(`${Math.round(box.width)} x ${Math.round(box.height)} px to press: ${words(element)}`);
  }

  return axes ? told({ rules: { "color-contrast": { enabled: contrast } } }) : [...new Set(found)];
}
