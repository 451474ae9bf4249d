// A copy goes to Pleat part by part, so that it may be as large as the disk has room for; the bar says how far it is.

const PART = 4 * 1024 * 1024, TRIES = 3;
const megabytes = (bytes) => (bytes / 1e6).toFixed(1);

async function ask(address, body, form) {
  const headers = { "X-CSRFToken": form.elements.csrf_token.value, "X-Epoch": form.elements.epoch.value, Accept: "application/json" };
  const answer = await fetch(address, { method: "POST", body, headers });
  const said = (answer.headers.get("Content-Type") || "").includes("json") ? await answer.json() : {};
  if (answer.ok) return said;
  const told = { 409: "A copy was put back meanwhile. Reload the page first.", 403: "This device is not paired any more. Reload the page." }[answer.status];
  throw new Error(said.problem || told || "Pleat did not take it (" + answer.status + ").");
}
// A part that did not arrive is sent again; what Pleat refuses with a reason is not.
async function again(work) {
  for (let left = TRIES; ; left--) {
    try { return await work(); } catch (error) {
      if (!(error instanceof TypeError) || left === 1) throw error;
      await new Promise((done) => setTimeout(done, 500));
    }
  }
}

document.addEventListener("alpine:init", () => {
  Alpine.data("parts", () => ({
    going: false,
    share: 0,
    words: "",
    async send(event) {
      const form = this.$root, file = form.elements.file.files[0], note = document.getElementById("n-file");
      if (!file || this.going) return;
      event.preventDefault();
      this.going = true;
      note.textContent = "";
      try {
        const size = new FormData();
        size.append("size", String(file.size));
        const to = await again(() => ask(form.dataset.begin, size, form));
        for (let at = 0; at < file.size; at += PART) {
          this.share = (100 * at) / file.size;
          this.words = megabytes(at) + " of " + megabytes(file.size) + " MB";
          await again(() => ask(to.part + "?at=" + at, file.slice(at, at + PART), form));
        }
        this.share = 100;
        const whole = document.getElementById("whole");
        whole.action = to.whole;
        whole.elements.name.value = file.name;
        whole.submit();
      } catch (error) {
        this.going = false;
        note.textContent = error instanceof TypeError ? "The copy did not arrive: Pleat does not answer, or the file cannot be read any more. Nothing was changed." : error.message;
      }
    },
  }));
});
