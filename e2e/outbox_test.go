package e2e

import (
	"fmt"
	"net/http"
	"net/http/httptest"
	"os"
	"os/exec"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// outboxPage is a page that holds nothing but the outbox, with a storage, a clock and a
// server of its own: `outbox(script)` is one whose server answers as the script says.
func outboxPage(t *testing.T) visitor {
	t.Helper()
	source := filepath.Join(root(t), "ui", "src", "api", "outbox.ts")
	strip := exec.Command("node", "-e", `
		const ts = require("typescript");
		const source = require("fs").readFileSync(process.argv[1], "utf8");
		process.stdout.write(ts.transpileModule(source, { compilerOptions: { module: "ESNext", target: "ES2022" } }).outputText);`, source)
	strip.Dir = filepath.Join(root(t), "ui")
	strip.Stderr = os.Stderr
	module, err := strip.Output()
	require.NoError(t, err)
	mux := http.NewServeMux()
	mux.HandleFunc("/outbox.js", func(w http.ResponseWriter, _ *http.Request) {
		w.Header().Set("Content-Type", "text/javascript")
		_, _ = w.Write(module)
	})
	mux.HandleFunc("/", func(w http.ResponseWriter, _ *http.Request) {
		w.Header().Set("Content-Type", "text/html")
		_, _ = fmt.Fprint(w, outboxHTML)
	})
	server := httptest.NewServer(mux)
	t.Cleanup(server.Close)
	v := open(t, server.URL)
	v.waitFor("the module", func() bool { return v.MustEval(`() => !!window.make`).Bool() })
	return v
}

const outboxHTML = `<!doctype html><script type="module">
import { Outbox, meaningOf, pause } from "/outbox.js";
const shelf = () => { const m = new Map(); return { map: m, getItem: (k) => m.get(k) ?? null, setItem: (k, v) => void m.set(k, v), removeItem: (k) => void m.delete(k), key: (i) => [...m.keys()][i], get length() { return m.size; } }; };
// A server that answers by a script, one step for each request, and then takes everything.
window.make = ({ storage = shelf(), tab = "a", living = ["a"], script = [], who = 1, kind = "events", most = 1000, painter = 1 } = {}) => {
	const log = { sent: [], taken: [], ended: 0, pauses: [], met: 0, most: 0 };
	const ends = new Map();
	const box = new Outbox({
		storage, tab,
		living: async () => new Set(living),
		whoPaints: async () => who,
		ended: () => { log.ended++; },
		wait: (ms) => { log.pauses.push(ms); return { done: Promise.resolve(), wake: () => {} }; },
		inTurn: (turn, go) => { const next = (ends.get(turn) ?? Promise.resolve()).then(go); ends.set(turn, next.catch(() => {})); return next; },
	});
	let version = 7;
	box.carry("x", {
		kind, most, turn: (thing) => thing, takesAway: (e) => e.says === "drop", met: () => { log.met++; }, version: async () => version,
		send: async (thing, entries, on) => {
			log.sent.push(entries.map((e) => e.id).join(","));
			log.most = Math.max(log.most, JSON.stringify(entries.map((e) => e.body)).length);
			await Promise.resolve();
			const step = script.shift() ?? {};
			if (step.status !== undefined) throw { status: step.status, message: "no: " + step.status, retryAfter: step.retryAfter };
			const refused = entries.filter((e) => step.refuse?.includes(e.id)).map((e) => ({ id: e.id, says: "not this one" }));
			const no = new Set(refused.map((r) => r.id));
			for (const e of entries) if (!no.has(e.id)) log.taken.push(e.id);
			return { refused, version: kind === "document" ? ++version : undefined };
		},
	});
	if (painter !== null) box.open(painter);
	return { box, log, storage };
};
window.entry = (id, more = {}) => ({ id, body: { id }, says: id, at: Number(id.replace(/\D/g, "")) || 0, ...more });
window.still = async () => { for (let i = 0; i < 400; i++) await Promise.resolve(); await new Promise((r) => setTimeout(r, 0)); for (let i = 0; i < 400; i++) await Promise.resolve(); };
window.line = (box, thing = "x/1") => ({ waiting: box.line(thing).waiting.map((e) => e.id), aside: box.line(thing).aside.map((e) => e.id) });
window.meaningOf = meaningOf; window.pause = pause;
</script>`

// run evaluates a scenario and answers with what it says, as JSON.
func (v visitor) run(js string) string {
	v.t.Helper()
	return v.MustEval(`async () => JSON.stringify(await (async () => {` + js + `})())`).Str()
}

func TestTheOutboxByItself(t *testing.T) {
	t.Parallel()
	v := outboxPage(t)
	for name, c := range map[string]struct{ js, want string }{
		"what an answer means": {
			`return [0, 408, 425, 429, 500, 503, 401, 409, 400, 403, 404, 413, 422].map(meaningOf).join(" ");`,
			`"later later later later later later who met refused refused refused refused refused"`},
		"steps grow, and as long as was asked for": {
			`return [pause(0), pause(1), pause(3), pause(9), pause(0, 7)];`, `[500,1000,4000,15000,7000]`},
		"what cannot be sent is sent later": {
			`const { box, log } = make({ script: [{ status: 0 }, { status: 429, retryAfter: 4 }, { status: 503 }] });
			 box.hold("x/1", [entry("1")]); await still();
			 return [log.taken, log.pauses, line(box), box.count()];`,
			`[["1"],[500,4000,2000],{"waiting":[],"aside":[]},{"waiting":0,"aside":0}]`},
		"what is taken away is done where it is gone": {
			`const { box, log } = make({ script: [{ status: 404 }, { status: 404 }] });
			 box.hold("x/1", [entry("1", { says: "drop" })]); await still();
			 box.hold("x/2", [entry("2")]); await still();
			 return [log.taken, line(box, "x/1"), line(box, "x/2")];`,
			`[[],{"waiting":[],"aside":[]},{"waiting":[],"aside":["2"]}]`},
		"a session that ended holds, until the same painter is back": {
			`const { box, log, storage } = make({ script: [{ status: 401 }] });
			 box.hold("x/1", [entry("1"), entry("2")]); await still();
			 const held = [log.ended, log.taken.length, box.get().painter, [...box.waitingFor()]];
			 box.open(2); await still();
			 const other = log.taken.length;
			 box.open(1); await still();
			 return [held, other, log.taken, storage.map.size];`,
			`[[1,0,null,[[1,2]]],0,["1","2"],0]`},
		"what is tapped while it is locked is kept for who was there": {
			`const { box, log } = make({ script: [{ status: 401 }] });
			 box.hold("x/1", [entry("1")]); await still();
			 box.hold("x/1", [entry("2")]); box.hold("x/2", [entry("3")]); await still();
			 const held = [[...box.waitingFor()], Object.keys(box.get().lines).length];
			 box.open(2); await still(); box.open(1); await still();
			 return [held, log.taken];`,
			`[[[[1,3]],0],["1","2","3"]]`},
		"another's answer is none of the painter's": {
			`const out = [];
			 for (const status of [403, 404]) {
			   const { box, log } = make({ who: 2, script: [{ status }] });
			   box.hold("x/1", [entry("1")]); await still();
			   out.push([log.ended, [...box.waitingFor()]]);
			 }
			 return out;`,
			`[[1,[[1,1]]],[1,[[1,1]]]]`},
		"a refusal is put aside and named": {
			`const { box } = make({ script: [{ status: 404 }] });
			 box.hold("x/1", [entry("1")]); await still();
			 return [line(box), box.line("x/1").aside[0].why, box.count()];`,
			`[{"waiting":[],"aside":["1"]},"no: 404",{"waiting":0,"aside":1}]`},
		"one refused among ten does not take the others with it": {
			`const { box, log } = make({ script: [{ refuse: ["4"] }] });
			 box.hold("x/1", Array.from({ length: 10 }, (_, i) => entry(String(i)))); await still();
			 return [log.taken.join(""), line(box)];`,
			`["012356789",{"waiting":[],"aside":["4"]}]`},
		"where all are refused at once they go one by one": {
			`const { box, log } = make({ script: [{ status: 413 }, {}, { status: 422 }] });
			 box.hold("x/1", [entry("1"), entry("2"), entry("3")]); await still();
			 return [log.sent, log.taken, line(box)];`,
			`[["1,2,3","1","2","3"],["1","3"],{"waiting":[],"aside":["2"]}]`},
		"what builds on a refused one waits with it, and goes again with it": {
			`const { box, log } = make({ script: [{ status: 422 }, { status: 422 }] });
			 box.hold("x/1", [entry("1", { group: "tap" }), entry("2", { group: "tap" }), entry("3"), entry("4", { needs: "tap" })]); await still();
			 const aside = line(box);
			 await box.again("x/1", "2"); await still();
			 return [aside, log.taken, line(box)];`,
			`[{"waiting":[],"aside":["1","2","4"]},["3","1","2","4"],{"waiting":[],"aside":[]}]`},
		"what is let go goes with its group": {
			`const { box, storage } = make({ script: [{ status: 422 }] });
			 box.hold("x/1", [entry("1", { group: "tap" }), entry("2", { group: "tap" })]); await still();
			 box.letGo("x/1", "1");
			 return [line(box), storage.map.size];`,
			`[{"waiting":[],"aside":[]},0]`},
		"batches stay under the bound, and taps whole": {
			`const { box, log } = make({ most: 60 });
			 box.hold("x/1", Array.from({ length: 12 }, (_, i) => entry(String(i), { group: "tap" + Math.floor(i / 2) }))); await still();
			 return [log.sent, log.most <= 70];`,
			`[["0,1,2,3","4,5,6,7","8,9,10,11"],true]`},
		"a document goes change by change, each on the version before": {
			`const { box, log } = make({ kind: "document" });
			 box.replace("x/1", { version: 7, waiting: [entry("1"), entry("2")], aside: [] }); await still();
			 return [log.sent, line(box)];`,
			`[["1","2"],{"waiting":[],"aside":[]}]`},
		"a document that met another is kept beside, as one": {
			`const { box, log } = make({ kind: "document", script: [{ status: 409 }, { status: 409 }] });
			 box.replace("x/1", { version: 7, waiting: [entry("1"), entry("2"), entry("3")], aside: [] }); await still();
			 return [log.sent, log.met, line(box)];`,
			`[["1","3"],2,{"waiting":[],"aside":[]}]`},
		"a document that is refused is put aside whole": {
			`const { box } = make({ kind: "document", script: [{ status: 422 }] });
			 box.replace("x/1", { version: 7, waiting: [entry("1"), entry("2")], aside: [] }); await still();
			 return line(box);`,
			`{"waiting":[],"aside":["2"]}`},
		"lists of closed tabs are merged by id, in order": {
			`const storage = make().storage;
			 const one = make({ storage, tab: "a", painter: 1, script: Array(50).fill({ status: 401 }) });
			 one.box.hold("x/1", [entry("1"), entry("4")]); await still();
			 const two = make({ storage, tab: "b", painter: 1, script: Array(50).fill({ status: 401 }) });
			 two.box.hold("x/1", [entry("2"), entry("3")]); await still();
			 const three = make({ storage, tab: "c", living: ["c"] }); await still();
			 return [three.log.taken, storage.map.size];`,
			`[["1","2","3","4"],0]`},
		"a tab that lives is left alone": {
			`const one = make({ script: [{ status: 401 }] });
			 one.box.hold("x/1", [entry("1")]); await still();
			 const two = make({ storage: one.storage, tab: "b", living: ["a", "b"] }); await still();
			 return [two.log.taken, one.storage.map.size];`,
			`[[],1]`},
		"of two versions of one document both are kept": {
			`const one = make({ kind: "document", script: [{ status: 401 }] });
			 one.box.replace("x/1", { version: 7, waiting: [entry("1")], aside: [] }); await still();
			 const two = make({ kind: "document", storage: one.storage, tab: "b", living: ["a", "b"], script: [{ status: 401 }] });
			 two.box.replace("x/1", { version: 7, waiting: [entry("2")], aside: [] }); await still();
			 const three = make({ kind: "document", storage: one.storage, tab: "c", living: ["c"] });
			 await still();
			 return [three.log.taken, line(three.box)];`,
			`[["1"],{"waiting":[],"aside":["2"]}]`},
		"what is in the storage and makes no sense is left out": {
			`const { storage } = make();
			 storage.setItem("gyrophane.outbox/1/x/1#old", "{broken"); storage.setItem("gyrophane.outbox/x", "1"); storage.setItem("gyrophane.outbox/1/x/2#old", '{"waiting":[1,null,{"id":"ok","says":"","at":1}]}');
			 const { log } = make({ storage, tab: "b", living: ["b"] }); await still();
			 return log.taken;`,
			`["ok"]`},
		"a browser without room says so, and sends all the same": {
			`const { storage } = make(); storage.setItem = () => { throw new Error("full"); };
			 const { box, log } = make({ storage, script: [{ status: 0 }] });
			 box.hold("x/1", [entry("1")]);
			 const full = box.get().full; await still();
			 return [full, log.taken];`,
			`[true,["1"]]`},
	} {
		assert.Equal(t, c.want, v.run(c.js), name)
	}
}

// Whatever a server answers, everything that was held is at the end taken, or waits, or is
// aside and named; nothing twice but what was sent again.
func TestTheOutboxDropsNothingWhateverIsAnswered(t *testing.T) {
	t.Parallel()
	v := outboxPage(t)
	assert.Equal(t, `[]`, v.run(`
		let seed = 26; const random = () => (seed = (seed * 1103515245 + 12345) % 2147483648) / 2147483648;
		const statuses = [0, 400, 401, 403, 404, 408, 409, 413, 422, 425, 429, 500, 503];
		const lost = [];
		for (let round = 0; round < 400; round++) {
			const script = Array.from({ length: 12 }, () => random() < 0.4 ? {} : random() < 0.3 ? { refuse: [String(Math.floor(random() * 12))] } : { status: statuses[Math.floor(random() * statuses.length)] });
			const told = JSON.stringify(script);
			const { box, log, storage } = make({ script, who: random() < 0.5 ? 1 : 2, most: 20 + random() * 200 });
			const all = Array.from({ length: 12 }, (_, i) => entry(String(i), { group: "tap" + Math.floor(i / (1 + Math.floor(random() * 3))) }));
			for (let i = 0; i < 12; i += 4) { box.hold("x/1", all.slice(i, i + 4)); if (random() < 0.5) await still(); if (box.get().painter === null) box.open(1); }
			await still();
			box.open(null); box.open(1);
			const kept = box.line("x/1");
			const there = new Set([...log.taken, ...kept.waiting.map((e) => e.id), ...kept.aside.filter((e) => e.why).map((e) => e.id)]);
			for (const e of all) if (!there.has(e.id)) lost.push([round, e.id, told]);
		}
		return lost.slice(0, 3);`))
}
