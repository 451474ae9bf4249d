// What every page has: which pleat is open, keys, dark or light, the menu, notices.
import { NAMES, TYPING, remember, root, singleKeys } from "./page.js";
import { catchUp, showOpen } from "./pleats.js";

document.addEventListener("alpine:init", () => {
  Alpine.data("house", () => ({
    // Opening a pleat is a step in the browser's own history: back goes to the one before.
    show(name) { this.go(name, true); },
    go(name, step) {
      const main = root();
      if (!main || !main.dataset.open || !NAMES.includes(name)) return;
      const url = new URL(location.href);
      url.searchParams.set("open", name);
      if (step && main.dataset.open !== name) history.pushState({ pleat: name }, "", url);
      main.dataset.open = name;
      main.setAttribute("hx-vals:inherited", JSON.stringify({ ...JSON.parse(main.getAttribute("hx-vals:inherited")), open: name }));
      showOpen();
      const strip = document.getElementById("strip-" + name);
      if (strip && strip.hasAttribute("data-behind")) catchUp();
      const head = document.getElementById("head-" + name);
      head.closest(".body, .book").scrollTop = 0;
      if (matchMedia("(max-width: 760px)").matches) main.scrollIntoView({ block: "start" });
      head.focus({ preventScroll: true });
    },
    back() {
      const name = new URL(location.href).searchParams.get("open");
      this.go(NAMES.includes(name) ? name : "book", false);
    },
    toStep(key) {
      const arrive = () => {
        if (document.querySelector("#strip-bench[data-behind]")) return;
        document.removeEventListener("htmx:after:swap", arrive);
        const step = document.getElementById("step-" + key);
        step.scrollIntoView({ block: "center" });
        step.querySelector("button").focus({ preventScroll: true });
      };
      this.go("bench", true);
      document.addEventListener("htmx:after:swap", arrive);
      arrive();
    },
    switchDark() {
      const dark = document.documentElement.dataset.theme !== "dark";
      document.documentElement.dataset.theme = dark ? "dark" : "light";
      remember("pleat-dark", dark ? "1" : "0");
    },
    menu(el) { el.setAttribute("aria-expanded", String(document.getElementById("bar").classList.toggle("open"))); },
    close(el) { el.closest(".notice").remove(); },
    // A drawer from which several things are taken stays open, and as it is, while the pleat around it is swapped.
    keep(event) { event.target.toggleAttribute("hx-morph-skip", event.target.open); },
    key(event) {
      if (event.ctrlKey || event.metaKey || event.altKey) return this.history(event);
      const keys = document.getElementById("keys");
      if (event.key === "?" && singleKeys() && !event.target.closest(TYPING)) {
        event.preventDefault();
        keys.showPopover();
        keys.querySelector("button").focus();
        return;
      }
      if (!root().dataset.open || event.target.closest(TYPING + ", [role=slider], [popover]") || keys.matches(":popover-open")) return;
      const open = NAMES.indexOf(root().dataset.open);
      if (event.key >= "0" && event.key <= "8") { if (singleKeys()) this.show(NAMES[Number(event.key)]); }
      else if (event.target.matches("input")) return; // arrows go from choice to choice there
      else if (event.key === "ArrowRight" && open < 8) this.show(NAMES[open + 1]);
      else if (event.key === "ArrowLeft" && open > 0) this.show(NAMES[open - 1]);
    },
    history(event) {
      const key = event.key.toLowerCase(), redo = key === "y" || (key === "z" && event.shiftKey);
      if (!(event.ctrlKey || event.metaKey) || (key !== "z" && key !== "y") || event.target.closest(TYPING)) return;
      const button = document.querySelector(redo ? "[data-key=redo]" : "[data-key=undo]");
      if (!button) return;
      event.preventDefault();
      if (button.getAttribute("aria-disabled") !== "true") button.click();
    },
  }));
});

document.addEventListener("change", (event) => {
  if (event.target.id !== "keys-single") return;
  remember("pleat-keys", event.target.checked ? "1" : "0");
});
