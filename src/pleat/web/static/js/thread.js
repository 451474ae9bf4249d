// The thread of a sewing, hole by hole.

document.addEventListener("alpine:init", () => {
  // The thread, hole by hole: everything past the present step is drawn faint.
  Alpine.data("thread", (moves) => ({
    at: null,
    init() {
      this.$watch("at", () => this.draw());
      this.swapped = () => this.draw();
      document.addEventListener("htmx:after:swap", this.swapped);
    },
    destroy() { document.removeEventListener("htmx:after:swap", this.swapped); },
    last() { return moves - 1; },
    on() { this.at = this.at === null || this.at >= this.last() ? 0 : this.at + 1; },
    back() { this.at = this.at === null ? this.last() - 1 : Math.max(0, this.at - 1); },
    whole() { this.at = null; },
    draw() {
      const view = document.querySelector("[data-thread]");
      if (!view) return;
      for (const span of view.querySelectorAll("[data-step]")) {
        const step = Number(span.dataset.step);
        span.classList.toggle("ahead", this.at !== null && step > this.at);
        span.classList.toggle("here", this.at !== null && step === this.at);
      }
      for (const item of view.querySelectorAll("[data-walk]")) {
        const step = Number(item.dataset.walk);
        item.classList.toggle("here", step === this.at);
        item.classList.toggle("ahead", this.at !== null && step > this.at);
        if (step === this.at) item.scrollIntoView({ block: "nearest" });
      }
    },
  }));
});
