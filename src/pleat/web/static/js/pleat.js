// The page's own behaviour: which pleat is open, keys, dragging stations, walking the thread. No computing here.
(function () {
  "use strict";
  const NAMES = ["book", "brief", "paper", "pages", "extras", "binding", "cover", "cutting", "bench"];
  const root = () => document.getElementById("main");

  // Which pleat is open stands on the page itself, for the styles; what is swapped in is told again.
  function showOpen() {
    const main = root();
    if (!main || !main.dataset.open) return;
    for (const name of NAMES) {
      const strip = document.getElementById("strip-" + name);
      if (strip) strip.setAttribute("aria-expanded", String(main.dataset.open === name));
    }
  }

  // --- the focus stays where the work is -----------------------------------------------------------------------
  // What is swapped may take the focused thing away; it comes back to the same thing, else to the notes of its pleat, else to its head.
  let before = null;
  function rememberFocus() {
    const el = document.activeElement;
    if (!el || el === document.body) return;
    const pleat = el.closest(".pleat"), named = el.name && el.value && el.type !== "text" ? '[name="' + el.name + '"][value="' + CSS.escape(el.value) + '"]' : "";
    before = { id: el.id, named, form: el.form ? el.form.id : "", pleat: pleat ? pleat.id : "", page: (el.closest("main > div, main") || { id: "" }).id };
  }
  function usable(el) { return el && el.isConnected && !el.disabled && el.getClientRects().length > 0; }
  function restoreFocus() {
    const now = document.activeElement;
    if (!before || (now && now !== document.body && now.isConnected)) { before = null; return; }
    const pleat = before.pleat && document.getElementById(before.pleat), page = before.page && document.getElementById(before.page);
    const found = [
      before.id && document.getElementById(before.id),
      before.named && (pleat || page || document).querySelector(before.named),
      pleat && pleat.querySelector(".checks:has(.check)"),
      pleat && pleat.querySelector("h2[tabindex]"),
      page && page.querySelector(".stage.now .btn-main:not(:disabled), .stage.now .btn:not(:disabled), .btn-main"),
      root() && document.getElementById("head-" + root().dataset.open),
    ].find(usable);
    before = null;
    if (found) found.focus({ preventScroll: true });
  }

  // --- after every swap: spots, times, values ------------------------------------------------------------------
  function settle(scope) {
    // A picture is no wider than its height allows: what stands on it is placed by shares of it.
    for (const svg of scope.querySelectorAll(".picture > svg.drawing")) {
      const box = svg.viewBox.baseVal;
      svg.parentElement.style.setProperty("--ratio", String(box.width / box.height));
    }
    for (const el of scope.querySelectorAll("[data-spot-x]")) {
      el.style.left = el.dataset.spotX + "%";
      el.style.top = el.dataset.spotY + "%";
    }
    for (const el of scope.querySelectorAll("[data-wide]")) {
      el.style.width = el.dataset.wide + "%";
      el.style.height = el.dataset.high + "%";
    }
    for (const el of scope.querySelectorAll("time[data-clock]")) {
      el.textContent = new Date(el.dateTime).toLocaleTimeString([], { hour: "2-digit", minute: "2-digit" });
      el.title = new Date(el.dateTime).toLocaleString();
    }
    showOpen();
    restoreRefused(scope);
  }

  // --- pleats that lay folded while the book changed ---------------------------------------------------------------
  // An answer brings their strips; their bodies follow when nothing is asked for a moment, or when one is opened.
  let quiet = null;
  function catchUp() {
    clearTimeout(quiet);
    const form = document.getElementById("behind"), names = [...document.querySelectorAll(".strip[data-behind]")].map((strip) => strip.parentElement.dataset.pleat);
    if (!form || !names.length) return;
    form.elements.of.value = names.join(" ");
    form.dispatchEvent(new Event("behind"));
  }
  document.addEventListener("htmx:after:swap", () => {
    clearTimeout(quiet);
    if (document.querySelector(".strip[data-behind]")) quiet = setTimeout(catchUp, 300);
  });

  // --- what could not be taken ---------------------------------------------------------------------------------
  // It stays in its field whatever is swapped, shows on the folded strip, and comes back after a reload of the page.
  // A fraction stands twice in the page, drawn and to be read aloud; kept as it is read aloud.
  function said(note) {
    const copy = note.cloneNode(true);
    for (const drawn of copy.querySelectorAll("[aria-hidden]")) drawn.remove();
    return copy.textContent.replace(/\s+/g, " ").trim();
  }
  function refusedOnes() {
    try { return JSON.parse(sessionStorage.getItem(refusedKey()) || "{}"); } catch (error) { return {}; }
  }
  function refusedKey() { return "pleat-refused-" + (root() ? root().dataset.book : ""); }
  function keepRefused(all) {
    try { sessionStorage.setItem(refusedKey(), JSON.stringify(all)); } catch (error) { /* private windows may refuse */ }
  }
  function noteRefused(input, message) {
    if (!root() || !root().dataset.book || !input.id) return;
    const all = refusedOnes();
    if (message) all[input.id] = { value: input.value, message };
    else delete all[input.id];
    keepRefused(all);
  }
  function restoreRefused() {
    if (!root() || !root().dataset.book) return;
    for (const [id, one] of Object.entries(refusedOnes())) {
      const input = document.getElementById(id);
      if (!input || !input.form || input.form.hasAttribute("hx-morph-skip")) continue;
      input.value = one.value;
      input.setAttribute("aria-invalid", "true");
      input.form.setAttribute("hx-morph-skip", "");
      const note = input.form.querySelector(".field-note");
      if (note) note.textContent = one.message;
    }
    for (const pleat of document.querySelectorAll(".pleat")) pleat.toggleAttribute("data-refused", Boolean(pleat.querySelector("[aria-invalid=true]")));
  }
  // A field whose text was taken shows what the book now holds, unless more was typed meanwhile; what others sent is still on its way.
  function showStored(form) {
    for (const input of form.querySelectorAll("input[data-sent]")) {
      if (input.value === input.dataset.sent) input.value = input.getAttribute("value") || "";
      delete input.dataset.sent;
    }
  }
  // A form that saves as it is changed shows what is stored, but in the field that is being typed in.
  function showSaved() {
    for (const input of document.querySelectorAll("form[data-stored] input:not([type=radio]):not([type=hidden])")) {
      if (input !== document.activeElement) input.value = input.getAttribute("value") || "";
    }
  }
  document.addEventListener("change", (event) => {
    if (event.target.matches("input[name=value]:not([type=radio])")) event.target.dataset.sent = event.target.value;
  });
  // What could not be taken stays in its field, whatever else is swapped around it.
  document.addEventListener("htmx:before:swap", (event) => {
    rememberFocus();
    const ctx = event.detail.ctx, form = ctx && ctx.sourceElement && ctx.sourceElement.closest && ctx.sourceElement.closest("form.field");
    if (!form) return;
    const input = form.querySelector("input[name=value], input[data-typed]");
    const failed = ctx.response && ctx.response.status === 422;
    form.toggleAttribute("hx-morph-skip", failed);
    if (input) input.toggleAttribute("aria-invalid", failed);
    if (input && failed) input.setAttribute("aria-invalid", "true");
    if (input && !failed) noteRefused(input, "");
  });
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

  document.addEventListener("htmx:after:swap", (event) => {
    const ctx = event.detail.ctx, taken = !(ctx && ctx.response && ctx.response.status >= 400), form = ctx && ctx.sourceElement && ctx.sourceElement.closest("form");
    if (taken && form) showStored(form);
    if (taken) showSaved();
    for (const input of document.querySelectorAll(".pleat input[aria-invalid=true], .bar input[aria-invalid=true]")) {
      const note = input.form.querySelector(".field-note");
      if (note && note.textContent.trim()) noteRefused(input, said(note));
    }
    settle(document);
    restoreFocus();
  });
  // What was typed counts, also where it reads as before: a length that is shown rounded may be meant as it stands there.
  document.addEventListener("input", (event) => {
    if (event.target.matches("[data-on-change] input[name=value]")) event.target.dataset.edited = "";
  });
  document.addEventListener("change", (event) => { delete event.target.dataset.edited; }, true);
  document.addEventListener("focusout", (event) => {
    if (event.target.dataset && "edited" in event.target.dataset) event.target.dispatchEvent(new Event("change", { bubbles: true }));
  });
  // Fields send what is typed when it changes; the Enter that ends the typing must not send it again, nor leave the page.
  // In a field whose text was refused, Enter tries again.
  let changedAt = 0;
  document.addEventListener("change", () => { changedAt = performance.now(); }, true);
  document.addEventListener("submit", (event) => {
    const form = event.target;
    if (!form.matches("[data-on-change]")) return;
    event.preventDefault();
    const again = form.querySelector("[aria-invalid=true]");
    if (again && performance.now() - changedAt > 60) again.dispatchEvent(new Event("change", { bubbles: true }));
  }, true);
  document.addEventListener("input", (event) => {
    const handle = event.target.closest && event.target.closest(".handle") && event.target.closest(".handle").querySelector(".handle-grip");
    if (handle) handle.dispatchEvent(new CustomEvent("handle-typed"));
  });
  document.addEventListener("htmx:error", (event) => {
    const source = event.detail && event.detail.ctx && event.detail.ctx.sourceElement, asks = source && source.id === "behind";
    tell("Pleat does not answer", asks ? "What lies folded may be older than what is open. Is it still running?" : "Your change is not saved. Is it still running? What you typed is still in its field.");
  });
  document.addEventListener("htmx:response:error", (event) => {
    const status = event.detail.ctx && event.detail.ctx.response && event.detail.ctx.response.status;
    if (status >= 500) tell("That went wrong inside Pleat", "Nothing was changed. What you typed is still in its field.");
  });
  function tell(title, text) {
    const place = document.getElementById("notice");
    if (!place) return;
    const box = document.createElement("div"), words = document.createElement("p"), bold = document.createElement("b"), close = document.createElement("button");
    box.className = "notice notice-bad";
    bold.textContent = title + ". ";
    words.append(bold, text);
    close.type = "button";
    close.className = "bar-button";
    close.addEventListener("click", () => box.remove());
    close.textContent = "close";
    box.append(words, close);
    place.replaceChildren(box);
  }

  function singleKeys() {
    try { return localStorage.getItem("pleat-keys") !== "0"; } catch (error) { return true; }
  }
  document.addEventListener("change", (event) => {
    if (event.target.id !== "keys-single") return;
    try { localStorage.setItem("pleat-keys", event.target.checked ? "1" : "0"); } catch (error) { /* private windows may refuse */ }
  });
  const TYPING = "input:not([type=radio]):not([type=checkbox]), select, textarea";

  // --- the materials by keyboard: / to search, digits for the kinds, arrows among the things --------------------------
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

  // Each word that is typed begins a word of the thing's own.
  function found(el, text) { return text.toLowerCase().split(/\s+/).filter(Boolean).every((word) => el.dataset.words.includes(" " + word)); }

  document.addEventListener("alpine:init", () => {
    // What every page has: which pleat is open, keys, dark or light, the menu, notices, drawers.
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
        try { localStorage.setItem("pleat-dark", dark ? "1" : "0"); } catch (error) { /* private windows may refuse */ }
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

    // Kinds found by their words, where there is nothing else to choose them by.
    Alpine.data("finder", () => ({
      find: "",
      meets(el) { return found(el, this.find); },
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
      meets(el) { return this.wants.every((wish) => el.dataset.wishes.split(" ").includes(wish)) && found(el, this.find); },
      touched(el) { this.typed[el.name] = true; },
      pick(el) {
        this.counted = el.dataset.count !== "";
        for (const name of ["size", "count"]) if (!this.typed[name]) this.$root.querySelector("[name=" + name + "]").value = el.dataset[name];
      },
      size(el) { const input = this.$root.querySelector("[name=size]"); input.value = el.dataset.size; this.typed.size = true; input.dispatchEvent(new Event("change", { bubbles: true })); },
      take(el) { const radio = this.$root.querySelector('[name=recipe][value="' + el.dataset.recipe + '"]'); radio.click(); radio.focus(); },
    }));

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

  document.addEventListener("DOMContentLoaded", () => {
    const single = document.getElementById("keys-single");
    if (single) single.checked = singleKeys();
    settle(document);
    const wrong = document.querySelector("[autofocus]");
    if (wrong) { wrong.scrollIntoView({ block: "center" }); wrong.focus({ preventScroll: true }); }
  });
})();
