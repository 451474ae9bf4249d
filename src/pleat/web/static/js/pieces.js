// A piece on its sheet: a tap tells of it, it is dragged elsewhere or onto another sheet of its material, and the arrow keys push it.
document.addEventListener("alpine:init", () => {
  Alpine.data("piece", () => ({
    from: null,
    moved: false,
    sheet() { return this.$el.closest("[data-sheet]"); },
    mover() { return document.getElementById("mover-" + this.sheet().dataset.stock); },
    grab(event) {
      if (event.button > 0) return;
      this.$el.setPointerCapture(event.pointerId);
      this.from = { x: event.clientX, y: event.clientY };
      this.moved = false;
    },
    drag(event) {
      if (this.from === null || (event.pointerType === "touch" && !this.$el.classList.contains("chosen"))) return; // a finger scrolls past it until it was tapped
      const dx = event.clientX - this.from.x, dy = event.clientY - this.from.y;
      if (!this.moved && Math.hypot(dx, dy) < 4) return;
      this.moved = true;
      this.$el.classList.add("carried");
      this.$el.style.transform = `translate(${dx}px, ${dy}px)`;
    },
    drop(event) {
      if (this.from === null) return;
      const box = this.$el.getBoundingClientRect(), moved = this.moved, own = this.sheet();
      this.leave();
      if (!moved) return this.look();
      const under = document.elementsFromPoint(event.clientX, event.clientY).map((one) => one.closest("[data-sheet]")).find(Boolean);
      const onto = under && under.dataset.stock === own.dataset.stock ? under : own, picture = onto.querySelector("svg").getBoundingClientRect();
      const px = (Number(onto.dataset.scale) * picture.width) / Number(onto.dataset.width);
      const x = (box.left - picture.left - Number(onto.dataset.left) * picture.width) / px, y = (box.top - picture.top - Number(onto.dataset.top) * picture.height) / px;
      this.send({ onto: onto.dataset.sheet, x, y });
    },
    leave() {
      this.from = null;
      this.$el.style.transform = "";
      this.$el.classList.remove("carried");
    },
    push(event) {
      const towards = { ArrowLeft: "left", ArrowRight: "right", ArrowUp: "up", ArrowDown: "down" }[event.key];
      if (event.key === "Enter" || event.key === " ") { event.preventDefault(); this.look(); return; }
      if (!towards) return;
      event.preventDefault();
      event.stopPropagation();
      this.send({ towards });
    },
    look() {
      document.querySelectorAll("[data-piece].chosen").forEach((one) => one.classList.remove("chosen"));
      this.$el.classList.add("chosen");
      const mover = this.mover(), asks = new URLSearchParams({ sheet: this.sheet().dataset.sheet, piece: this.$el.dataset.piece });
      htmx.ajax("GET", mover.dataset.look + "?" + asks, { target: "#piece-" + this.sheet().dataset.stock, swap: "innerHTML" });
    },
    send(asked) {
      const form = this.mover(), given = { sheet: this.sheet().dataset.sheet, piece: this.$el.dataset.piece, onto: "", x: "", y: "", towards: "", ...asked };
      for (const [name, value] of Object.entries(given)) form.elements[name].value = value;
      form.requestSubmit();
    },
  }));
});
