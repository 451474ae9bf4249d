// The start: kinds found by their words and wishes, and what a recipe brings.
import { found } from "./words.js";

document.addEventListener("alpine:init", () => {
  // Kinds found by their words, where there is nothing else to choose them by.
  Alpine.data("finder", () => ({
    find: "",
    meets(el) { return found(el.dataset.words, this.find); },
    get none() { return ![...this.$root.querySelectorAll("[data-words]")].some((one) => this.meets(one)); },
  }));

  // The start: a recipe brings its size and count, unless those were typed; wishes hide what does not meet them.
  Alpine.data("start", () => ({
    wants: [],
    find: "",
    counted: true,
    init() { const on = this.$root.querySelector("[name=recipe]:checked"); this.counted = !on || on.dataset.count !== ""; },
    typed: {},
    get none() { return ![...this.$root.querySelectorAll(".recipe")].some((one) => this.meets(one)); },
    meets(el) { return this.wants.every((wish) => el.dataset.wishes.split(" ").includes(wish)) && found(el.dataset.words, this.find); },
    touched(el) { this.typed[el.name] = true; },
    pick(el) {
      this.counted = el.dataset.count !== "";
      for (const name of ["size", "count"]) if (!this.typed[name]) this.$root.querySelector("[name=" + name + "]").value = el.dataset[name];
    },
    size(el) { const input = this.$root.querySelector("[name=size]"); input.value = el.dataset.size; this.typed.size = true; input.dispatchEvent(new Event("change", { bubbles: true })); },
    take(el) { const radio = this.$root.querySelector('[name=recipe][value="' + el.dataset.recipe + '"]'); radio.click(); radio.focus(); },
  }));
});
