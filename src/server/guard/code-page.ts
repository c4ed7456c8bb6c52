/** The one page that is there without a code: whole in itself, since nothing else is answered. */

export type CodePage = { to: string; nonce: string; fault: string | null; status: number };

/** @param to the path to go on to; it and the fault may hold any letters */
export function codePage({ to, nonce, fault }: CodePage): string {
  return `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>Access code · Ustrina</title>
<link rel="icon" href="data:,">
<style nonce="${nonce}">${STYLE}</style>
</head>
<body>
<main>
<p class="name">Ustrina</p>
<h1>Access code</h1>
<p id="where">This bench is open to the local network with a code. It is shown in the terminal in which Ustrina runs, and on
the bench under “On another device”, where it can also be scanned.</p>
<form method="post" action="/access">
<input type="hidden" name="to" value="${escaped(to)}">
<label for="code">Access code, 8 letters and digits</label>
<input id="code" name="code" required maxlength="20" autocomplete="off" autocapitalize="characters" spellcheck="false"
 aria-describedby="${fault === null ? "where" : "fault"}"${fault === null ? "" : ' aria-invalid="true"'} autofocus>
${fault === null ? "" : `<p id="fault" role="alert">${escaped(fault)}</p>`}
<button>Open the bench</button>
</form>
</main>
<script nonce="${nonce}">${SCRIPT}</script>
</body>
</html>
`;
}

/** The scanned address has the code behind its #, which browsers never send: it is put into the field and sent from there. */
const SCRIPT = `
const code = decodeURIComponent(location.hash.slice(1));
if (code) {
  history.replaceState(null, "", location.pathname);
  document.querySelector("#code").value = code;
  document.querySelector("form").requestSubmit();
}`;

/** The inks of the app, whose own style sheet is not given out here. */
const STYLE = `
:root { color-scheme: light dark; --paper: light-dark(#f4f0e6, #171411); --sheet: light-dark(#fffdf7, #201c17);
 --border: light-dark(#857c67, #8f8367); --ink: light-dark(#25211a, #e3dac6); --ink2: light-dark(#5b5445, #bdb29b);
 --ember: light-dark(#b2411a, #f2935f); --steel: light-dark(#2b5a86, #93bbe2);
 --go: light-dark(#25211a, #cdbb92); --on-go: light-dark(#fffdf7, #171411); }
body { margin: 0; background: var(--paper); color: var(--ink); font: 17px/1.5 system-ui, sans-serif; }
main { max-width: 26rem; margin: 12vh auto 0; padding: 0 20px; }
.name { margin: 0; color: var(--ink2); font-weight: 700; }
h1 { margin: 0 0 8px; font-size: 28px; line-height: 1.2; }
#where { color: var(--ink2); }
label { display: block; margin: 20px 0 6px; font-weight: 600; }
input[name=code] { box-sizing: border-box; width: 100%; padding: 10px 12px; border: 1px solid var(--border); border-radius: 6px;
 background: var(--sheet); color: inherit; font: 28px/1.2 ui-monospace, monospace; letter-spacing: .08em; text-transform: uppercase; }
#fault { margin: 8px 0 0; color: var(--ember); font-weight: 600; }
button { width: 100%; min-height: 48px; margin-top: 16px; border: 0; border-radius: 6px; background: var(--go); color: var(--on-go);
 font: inherit; font-weight: 700; cursor: pointer; }
:focus-visible { outline: 3px solid var(--steel); outline-offset: 2px; }`;

function escaped(text: string): string {
  return text.replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`);
}
