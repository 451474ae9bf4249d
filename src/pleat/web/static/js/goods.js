// The materials by keyboard: / to search, digits for the kinds, arrows among the things.
import { TYPING, singleKeys } from "./page.js";

document.addEventListener("keydown", (event) => {
  if (!document.body.classList.contains("page-materials") || event.ctrlKey || event.metaKey || event.altKey) return;
  const search = document.getElementById("finder-q");
  if (!search || event.target.closest(TYPING)) return;
  if (event.key === "/" && singleKeys()) { event.preventDefault(); search.focus(); search.select(); return; }
  const kinds = document.querySelectorAll(".kinds input");
  if (/^[0-9]$/.test(event.key) && singleKeys() && kinds[Number(event.key)]) { kinds[Number(event.key)].click(); return; }
  const goods = [...document.querySelectorAll(".good")], here = goods.indexOf(document.activeElement);
  if (here < 0 || event.target.matches("input")) return;
  const across = Math.max(1, goods.filter((good) => good.offsetTop === goods[0].offsetTop).length);
  const by = { ArrowRight: 1, ArrowLeft: -1, ArrowDown: across, ArrowUp: -across }[event.key];
  if (by && goods[here + by]) { event.preventDefault(); goods[here + by].focus(); }
});
