// What all parts of the page share: the pleats by name, the page itself, notices, what is kept by the browser.

export const NAMES = ["book", "brief", "paper", "pages", "extras", "binding", "cover", "cutting", "bench"];
export const root = () => document.getElementById("main");

export const TYPING = "input:not([type=radio]):not([type=checkbox]), select, textarea";

// What the browser keeps for this page; a private window may refuse.
export function recalled(key, store = "localStorage") {
  try { return window[store].getItem(key); } catch { return null; }
}
export function remember(key, text, store = "localStorage") {
  try { window[store].setItem(key, text); } catch { /* kept for as long as the page is there */ }
}

export function singleKeys() { return recalled("pleat-keys") !== "0"; }

export function tell(title, text) {
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
