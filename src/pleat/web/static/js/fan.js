// The mixed pile: sheets dragged in fans and openings, chosen, and the same by keyboard. No computing here.

const START_PX = 6, EDGE_PX = 48;
let held = null, dragged = false, chosen = "", focusNext = false;
export const sheetOf = (id) => document.getElementById("sheet-" + id);

// --- sending -------------------------------------------------------------------------------------------------
function send(values) {
  const form = document.getElementById("pile-move");
  if (!form) return;
  for (const name of ["do", "sheet", "section", "place"]) form.elements[name].value = name in values ? values[name] : "";
  form.requestSubmit();
}
function moveTo(strip, section, place) {
  const own = strip.dataset.section === String(section);
  if (own && Number(strip.dataset.place) === place) return;
  send({ do: "move", sheet: strip.dataset.sheet, section, place });
}

// --- placing what the server drew over a fan --------------------------------------------------------------------
function settle() {
  for (const el of document.querySelectorAll("[data-box]")) {
    const [x, y, w, h] = el.dataset.box.split(" ");
    el.style.left = x + "%";
    el.style.top = y + "%";
    el.style.width = w + "%";
    if (Number(h)) el.style.height = h + "%";
  }
  for (const el of document.querySelectorAll(".page.chosen")) el.classList.remove("chosen");
  if (chosen && sheetOf(chosen)) {
    for (const el of document.querySelectorAll('.page[data-sheet="' + chosen + '"]')) el.classList.add("chosen");
    if (focusNext) sheetOf(chosen).focus();
  }
  focusNext = false;
}
function choose(id) {
  chosen = id;
  window.dispatchEvent(new CustomEvent("pile-choose", { detail: id }));
  settle();
}

// --- dragging ----------------------------------------------------------------------------------------------------
// Where a sheet would come to lie if it were let go here: beside a strip, in the place of a page, or at the inside of a section.
function target(event) {
  const under = document.elementFromPoint(event.clientX, event.clientY);
  if (!under) return null;
  const strip = under.closest(".fan-sheet, .fan-pin"), page = under.closest(".page[data-sheet]"), fan = under.closest("[data-drop]");
  if (strip) {
    const over = strip.matches(".fan-pin") ? sheetOf(strip.dataset.sheet) : strip, box = over.getBoundingClientRect();
    const after = event.clientX > box.left + box.width / 2;
    return { el: over, mark: after ? "drop-after" : "drop-before", section: Number(over.dataset.section), gap: Number(over.dataset.place) + (after ? 1 : 0) };
  }
  if (page) return { el: page, mark: "drop-here", section: Number(page.dataset.section), place: Number(page.dataset.place) };
  if (fan) return { el: fan, mark: "drop-end", section: Number(fan.dataset.drop), gap: 1000 };
  return null;
}
function clear() {
  for (const el of document.querySelectorAll(".drop-before, .drop-after, .drop-here, .drop-end")) el.classList.remove("drop-before", "drop-after", "drop-here", "drop-end");
}
function letGo() {
  if (held && held.ghost) held.ghost.remove();
  document.body.classList.remove("dragging");
  clear();
  held = null;
}
document.addEventListener("pointerdown", (event) => {
  const el = event.target.closest && event.target.closest(".fan-sheet, .page[data-sheet]");
  const strip = el && sheetOf(el.dataset.sheet);
  dragged = false;
  if (!strip || event.button > 0 || "pinned" in strip.dataset) return;
  held = { strip, x: event.clientX, y: event.clientY, ghost: null, pointer: event.pointerId };
});
document.addEventListener("pointermove", (event) => {
  if (!held || event.pointerId !== held.pointer) return;
  if (!held.strip.isConnected) { letGo(); return; }
  if (!held.ghost) {
    if (Math.hypot(event.clientX - held.x, event.clientY - held.y) < START_PX) return;
    held.ghost = document.createElement("div");
    held.ghost.className = "ghost-sheet ghost-" + held.strip.dataset.swatch;
    held.ghost.textContent = held.strip.dataset.name;
    document.body.append(held.ghost);
    document.body.classList.add("dragging");
  }
  held.ghost.style.left = event.clientX + 10 + "px";
  held.ghost.style.top = event.clientY + 10 + "px";
  const body = held.strip.closest(".body"), box = body.getBoundingClientRect();
  if (event.clientY < box.top + EDGE_PX) body.scrollTop -= 14;
  else if (event.clientY > box.bottom - EDGE_PX) body.scrollTop += 14;
  clear();
  const to = target(event);
  if (to) to.el.classList.add(to.mark);
});
document.addEventListener("pointerup", (event) => {
  if (!held || event.pointerId !== held.pointer) return;
  const strip = held.strip, to = held.ghost ? target(event) : null;
  dragged = Boolean(held.ghost);
  setTimeout(() => { dragged = false; });
  letGo();
  if (!to) return;
  const own = to.section === Number(strip.dataset.section), from = Number(strip.dataset.place);
  let place = "place" in to ? to.place : to.gap;
  if (own && "gap" in to && from < to.gap) place = Math.min(to.gap, Number(strip.dataset.last) + 1) - 1;
  moveTo(strip, to.section, place);
});
document.addEventListener("pointercancel", letGo);
document.addEventListener("keydown", (event) => { if (event.key === "Escape" && held) letGo(); });

// --- taps ---------------------------------------------------------------------------------------------------------
document.addEventListener("click", (event) => {
  if (!event.target.closest) return;
  if (dragged) { dragged = false; event.preventDefault(); event.stopPropagation(); return; }
  const act = event.target.closest("[data-act]"), el = event.target.closest(".fan-sheet, .page[data-sheet]");
  if (act) send({ do: act.dataset.act, sheet: act.dataset.sheet });
  else if (el) choose(el.dataset.sheet);
}, true);

// --- keys: arrows go from sheet to sheet, with Shift they move it; P pins ---------------------------------------------
document.addEventListener("keydown", (event) => {
  const strip = event.target.closest && event.target.closest(".fan-sheet");
  if (!strip || event.ctrlKey || event.metaKey || event.altKey) return;
  const by = { ArrowLeft: [0, -1], ArrowRight: [0, 1], ArrowUp: [-1, 0], ArrowDown: [1, 0] }[event.key];
  const pins = event.key.toLowerCase() === "p";
  if (!by && !pins) return;
  event.preventDefault();
  event.stopPropagation();
  const section = Number(strip.dataset.section), place = Number(strip.dataset.place);
  if (pins || event.shiftKey) { choose(strip.dataset.sheet); focusNext = true; }
  if (pins) send({ do: "pinned" in strip.dataset ? "unpin" : "pin", sheet: strip.dataset.sheet });
  else if (!event.shiftKey) {
    const next = document.querySelector('.fan-sheet[data-section="' + (section + by[0]) + '"][data-place="' + (place + by[1]) + '"]') || (by[0] && document.querySelector('.fan-sheet[data-section="' + (section + by[0]) + '"]'));
    if (next) next.focus();
  } else if ("pinned" in strip.dataset) return;
  else if (section + by[0] >= 0 && place + by[1] >= 0 && place + by[1] <= Number(strip.dataset.last)) moveTo(strip, section + by[0], place + by[1]);
}, true);


// No sheet is chosen any more, and none is dragged.
export function unchoose() { chosen = ""; settle(); }
export const isHeld = () => Boolean(held);

document.addEventListener("htmx:after:swap", settle);
document.addEventListener("DOMContentLoaded", settle);
