"""Asked of a page at each width: nothing scrolls sideways or is cut."""

WIDTHS = (400, 640, 768, 1024, 1280, 1920)

TOO_WIDE = """async width => {
  const named = one =>
    `${one.nodeName.toLowerCase()} ${(one.ariaLabel ?? one.textContent).trim().slice(0, 30)}`;
  const shown = one => one.getClientRects().length > 0 && !one.closest(".visually-hidden, [inert]");
  const shortened = one => one !== null
    && (getComputedStyle(one).textOverflow === "ellipsis" || shortened(one.parentElement));
  const boxes = document.querySelectorAll(".view, dialog, [role=dialog]");
  const all = [document.documentElement, ...boxes];
  const wide = all.filter(one => shown(one) && one.scrollWidth > one.clientWidth + 1);
  const beyond = [...document.querySelectorAll("button, a, input, h1, h2, h3, th, label")].filter(
    one => shown(one) && one.getBoundingClientRect().right > width + 1
      && !one.closest("[style*='overflow'], .rc-virtual-list, .ant-select-dropdown")
      && !shortened(one));
  const cut = [...document.querySelectorAll("button, .ant-btn, h1, h2, h3")].filter(
    one => shown(one) && one.scrollWidth > one.clientWidth + 1
      && getComputedStyle(one).overflowX === "hidden"
      && getComputedStyle(one).textOverflow !== "ellipsis");
  const under = () => [...document.querySelectorAll(".holds-rows > *")].filter(shown)
    .map(one => [one, one.getBoundingClientRect()]).sort((a, b) => a[1].top - b[1].top)
    .filter((row, i, all) => i > 0 && row[1].top < all[i - 1][1].bottom - 1).map(row => row[0]);
  // What grew moves the rows below it within a few frames.
  for (let frame = 0; frame < 30 && under().length; frame++)
    await new Promise(next => requestAnimationFrame(() => setTimeout(next)));
  const numbers = [...document.querySelectorAll("[role=spinbutton]")].filter(
    one => shown(one) && one.scrollWidth > one.clientWidth + 1);
  return [...wide, ...beyond, ...cut, ...numbers, ...under()].map(named);
}"""
"""Width in pixels -> what is wider than its place, beyond the edge, cut, or over another row."""
