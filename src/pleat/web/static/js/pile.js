// The slip of the chosen sheet of a mixed pile.
import { isHeld, sheetOf, unchoose } from "./fan.js";

document.addEventListener("alpine:init", () => {
  Alpine.data("pile", () => ({
    id: "", name: "", about: "", section: "0", place: "0", joined: "", pinned: "false", paired: "false", windowed: "false",
    outermost: false, innermost: false, front: false, alone: false, narrow: "", opening: false, turnable: "", turnWords: "",
    init() {
      this.swapped = () => this.show();
      this.escaped = (event) => { if (event.key === "Escape" && this.id && !isHeld()) this.close(); };
      document.addEventListener("htmx:after:swap", this.swapped);
      document.addEventListener("keydown", this.escaped);
      this.show();
    },
    destroy() {
      document.removeEventListener("htmx:after:swap", this.swapped);
      document.removeEventListener("keydown", this.escaped);
    },
    choose(event) { this.id = event.detail; this.show(); },
    close() { const strip = sheetOf(this.id); this.id = ""; unchoose(); if (strip) strip.focus(); },
    get folded() { return String(this.joined === "folded"); },
    get stub() { return String(this.joined === "stub"); },
    get tipped() { return String(this.joined === "tipped"); },
    get isBoth() { return String(this.narrow === "both"); },
    get isFirst() { return String(this.narrow === "first"); },
    get isSecond() { return String(this.narrow === "second"); },
    get pinDo() { return this.pinned === "true" ? "unpin" : "pin"; },
    get pairDo() { return this.paired === "true" ? "part" : "pair"; },
    get windowDo() { return this.windowed === "true" ? "no window" : "window"; },
    show() {
      const strip = this.id && sheetOf(this.id);
      if (!strip) { this.id = ""; return; }
      const data = strip.dataset, last = Number(data.last), sections = Number(data.sections);
      this.name = data.name;
      this.about = "sheet " + (Number(data.place) + 1) + " of section " + (Number(data.section) + 1) + ", pages " + data.pages + "; " + data.size;
      this.section = data.section;
      this.place = data.place;
      this.joined = data.joined;
      this.pinned = String("pinned" in data);
      this.paired = String("paired" in data);
      this.windowed = String("window" in data);
      this.narrow = data.narrow;
      this.opening = "window" in data;
      this.turnable = data.turnable;
      this.turnWords = data.turnable === "turned" ? "turn it" : "lay it upright";
      this.outermost = data.place === "0";
      this.innermost = Number(data.place) === last;
      this.front = data.section === "0";
      this.alone = last === 0 && Number(data.section) === sections - 1;
      const typed = { where: Number(data.section) + 1 + "." + (Number(data.place) + 1), flap: data.flap, panels: data.panels };
      [typed.windowWidth, typed.windowHeight, typed.windowFore, typed.windowHead] = (data.opening || ";;;").split(";");
      for (const input of this.$root.querySelectorAll("[data-typed]")) {
        const same = input.dataset.of === this.id;
        if (same && input.form.hasAttribute("hx-morph-skip")) continue; // what could not be taken stays as it was typed, all of it
        input.dataset.of = this.id;
        input.value = typed[input.dataset.typed];
        if (!same) { input.removeAttribute("aria-invalid"); input.form.removeAttribute("hx-morph-skip"); input.form.querySelector(".field-note").textContent = ""; }
      }
    },
  }));
});
