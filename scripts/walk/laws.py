"""What each state is held against, asked of the page itself."""

AUDIT = """async only => {
  const found = await axe.run(document, { resultTypes: ["violations"], ...only });
  return found.violations.filter(one => ["moderate", "serious", "critical"].includes(one.impact))
    .map(one => `${one.id}: ${one.nodes.slice(0, 3).map(node => node.target.join(" ")).join()}`);
}"""
DRAWN = """() => new Promise(done =>
  requestAnimationFrame(() => requestAnimationFrame(() => setTimeout(done))))"""
HEADED = """() => {
  const headings = document.querySelectorAll("h1").length;
  return headings === 1 ? [] : [`${headings} headings of the first level`];
}"""
HELD = """() => {
  const at = document.activeElement, within = at.closest("[role=dialog]");
  if (!within) return ["the focus is not in the dialogue"];
  const says = [];
  if (within.querySelector("input:not([type=hidden]), textarea") && !at.matches("input, textarea")
      && !at.matches("[data-begins]"))
    says.push(`it does not begin in its first field but on ${at.textContent.slice(0, 30)}`);
  if (at.matches(".ant-modal-close")) says.push("it begins on its cross");
  return says;
}"""
OVERLAID = """() => {
  const words = one => one.textContent.trim().replace(/\\s+/g, " ").slice(0, 30);
  const OVER = "dialog, [role=dialog], .ant-picker-dropdown, .ant-select-dropdown, .ant-dropdown";
  // What stands still while the page scrolls below it, or opens over it.
  const layer = one => {
    for (let up = one; up && up !== document.body; up = up.parentElement)
      if (["fixed", "sticky"].includes(getComputedStyle(up).position)
        || up.matches(OVER))
        return up;
    return null;
  };
  const open = [...document.querySelectorAll("dialog[open], [role=dialog]")]
    .filter(one => one.checkVisibility()).at(-1);
  const clipped = (one, rect) => {
    let { left, top, right, bottom } = rect, by = null;
    for (let up = one; up && up !== document.body; up = up.parentElement) {
      const style = getComputedStyle(up);
      if (style.overflowX !== "visible" || style.overflowY !== "visible") {
        const at = up.getBoundingClientRect();
        if (at.right < right) by = up;
        left = Math.max(left, at.left); top = Math.max(top, at.top);
        right = Math.min(right, at.right); bottom = Math.min(bottom, at.bottom);
      }
      if (style.position === "fixed") break;
    }
    return { left, top, right, bottom, by };
  };
  const LEAST_TEXT = 11;
  const found = [];
  const texts = [];
  const walker = document.createTreeWalker(open ?? document.body, NodeFilter.SHOW_TEXT);
  for (let node = walker.nextNode(); node; node = walker.nextNode()) {
    const one = node.parentElement;
    if (!node.data.trim() || !one || one.closest("script, style, .visually-hidden, [inert]"))
      continue;
    if (!one.checkVisibility({ opacityProperty: true, visibilityProperty: true })) continue;
    const range = document.createRange();
    range.selectNodeContents(node);
    for (const rect of range.getClientRects()) {
      const at = clipped(one, rect);
      if (at.right - at.left < 2 || at.bottom - at.top < 4) continue;
      if (one.ownerSVGElement && one.nodeName === "text" && rect.height < LEAST_TEXT)
        found.push(`too small to read, ${rect.height.toFixed(1)} px high: ${words(one)}`);
      texts.push({ one, node, ...at });
      // Half a letter is cut where a box is narrower than its word and says no ellipsis.
      if (rect.right - at.right > 2 && getComputedStyle(at.by).textOverflow !== "ellipsis")
        found.push(`cut: ${words(one)}`);
    }
  }
  texts.sort((a, b) => a.top - b.top);
  for (let i = 0; i < texts.length; i++)
    for (let j = i + 1; j < texts.length && texts[j].top < texts[i].bottom - 3; j++) {
      const [a, b] = [texts[i], texts[j]];
      if (a.node === b.node || layer(a.one) !== layer(b.one)) continue;
      const wide = Math.min(a.right, b.right) - Math.max(a.left, b.left);
      const high = Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top);
      if (wide > 2 && high > 3) found.push(`on each other: ${words(a.one)} | ${words(b.one)}`);
    }
  return [...new Set(found)];
}"""
"""Texts that lie on each other within one layer, or are cut in the middle of a letter."""
