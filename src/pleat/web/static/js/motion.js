// What moves by itself on the pages, for as long as nobody stops it.

// Whether the maker wants no motion: what would move is shown as it is in the end.
export const calm = () => matchMedia("(prefers-reduced-motion: reduce)").matches;

// From 0 to 1 in so many seconds, frame by frame. `view.playing` says that it goes on; whoever sets it to false stops it.
export function play(view, seconds, step) {
  if (view.calm || !seconds) { step(1); return; }
  view.playing = true;
  const began = performance.now();
  const frame = (now) => {
    if (!view.playing) return;
    const share = Math.min(Math.max(now - began, 0) / (1000 * seconds), 1);
    step(share);
    if (share < 1) requestAnimationFrame(frame);
    else view.playing = false;
  };
  requestAnimationFrame(frame);
}
