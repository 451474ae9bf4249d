// What dries or is pressed: any page shows how long it still takes, and rings when it is over.
import { recalled, remember } from "./page.js";

const NAME = "pleat-waits", LOOK = 1000, MINUTE = 60_000;
const kept = () => JSON.parse(recalled(NAME) || "[]");
const keep = (waits) => remember(NAME, JSON.stringify(waits));

export function startWait(title, minutes, page) {
  const until = Date.now() + minutes * MINUTE;
  keep([...kept().filter((wait) => wait.title !== title || wait.page !== page), { title, until, page, rung: false }]);
  show();
}

// Words for what is left: minutes, from two hours on hours.
export function lasting(left) {
  const minutes = Math.max(0, Math.ceil(left / MINUTE));
  if (minutes === 0) return "over";
  return minutes < 120 ? minutes + " min" : Math.round(minutes / 60) + " h";
}

function ring() {
  try {
    const sound = new AudioContext(), tone = sound.createOscillator(), volume = sound.createGain();
    volume.gain.setValueAtTime(0.2, sound.currentTime);
    volume.gain.exponentialRampToValueAtTime(0.001, sound.currentTime + 1.2);
    tone.frequency.value = 660;
    tone.connect(volume).connect(sound.destination);
    tone.start(); tone.stop(sound.currentTime + 1.2);
  } catch { /* a page that nobody touched yet may not sound; it shows it */ }
}

function show() {
  const place = document.getElementById("waits");
  if (!place) return;
  const now = Date.now(), waits = kept(), over = waits.filter((wait) => wait.until <= now && !wait.rung);
  if (over.length) { ring(); keep(waits.map((wait) => ({ ...wait, rung: wait.rung || wait.until <= now }))); }
  const chips = waits.map((wait) => {
    const chip = document.createElement("button");
    chip.type = "button";
    chip.className = "wait-chip" + (wait.until <= now ? " wait-over" : "");
    chip.textContent = wait.title + ": " + lasting(wait.until - now);
    chip.title = "take it off";
    chip.addEventListener("click", () => { keep(kept().filter((one) => one.title !== wait.title || one.page !== wait.page)); show(); });
    return chip;
  });
  const said = chips.map((chip) => chip.textContent).join("|");
  if (place.dataset.said !== said) { place.replaceChildren(...chips); place.dataset.said = said; }
}

setInterval(show, LOOK);
document.addEventListener("DOMContentLoaded", show);
