// Drawers stay as they are while the pleat around them is swapped.

// A drawer that was opened stays open while the pleat around it is swapped: what is typed in it may be one of several.
// A swap never shuts it, not even for a moment in which it may have been tapped; what was fetched into it is asked for again.
const drawers = new Set();
let renewed = [];
document.addEventListener("toggle", (event) => {
  const drawer = event.target;
  if (drawer.matches && drawer.matches("details.drawer[id]")) drawers[drawer.open ? "add" : "delete"](drawer.id);
}, true);
htmx.registerExtension("drawers", {
  htmx_before_morph_attr(el, detail) {
    if (detail.attrName !== "open" || !el.matches("details.drawer[id]")) return true;
    renewed.push(el);
    return false;
  },
});
document.addEventListener("htmx:after:swap", () => {
  for (const drawer of renewed) if (drawer.open) drawer.dispatchEvent(new Event("toggle"));
  renewed = [];
  for (const id of drawers) { // a new one in the place of one that was open
    const drawer = document.getElementById(id);
    if (drawer) drawer.open = true;
  }
});
