// A length as it is read off the maker's ruler.

// a length while it is dragged, on the maker's ruler
export function onRuler(mm, ruler) {
  if (ruler === "mm") return String(Math.round(mm * 2) / 2);
  const steps = Math.round((mm / 25.4) * 16), whole = Math.floor(steps / 16);
  let top = steps % 16, bottom = 16;
  while (top && top % 2 === 0) { top /= 2; bottom /= 2; }
  return top ? (whole ? whole + " " : "") + top + "/" + bottom : String(whole);
}
