// Runs before the page is drawn, so that a dark room stays dark: the maker's choice, else what the system prefers.
(function () {
  let chosen = null;
  try { chosen = localStorage.getItem("pleat-dark"); } catch { /* private windows may refuse */ }
  const dark = chosen === null ? window.matchMedia("(prefers-color-scheme: dark)").matches : chosen === "1";
  document.documentElement.dataset.theme = dark ? "dark" : "light";
})();
