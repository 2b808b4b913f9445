// Command measure says how the interface behaves in a browser: for every view how far it jumps while it loads, when its
// largest piece is there, how much script it takes and how many nodes it has; for the sheet, how long a key takes.
package main

import (
	"context"
	"encoding/json"
	"errors"
	"flag"
	"fmt"
	"os"
	"sort"
	"strings"
	"time"

	"github.com/chromedp/cdproto/page"
	"github.com/chromedp/cdproto/performance"
	"github.com/chromedp/chromedp"

	"frugalheron/demo"
	"frugalheron/e2e/browser"
	"frugalheron/e2e/sampleworld"
)

// view is a route of the sample world, and how it is called in the table.
type view struct{ name, path string }

var views = []view{
	{"start", "/start"}, {"collection", "/collection"}, {"arrivals", "/collection/arrivals"},
	{"new machine", "/collection/new"},
	{"at a glance", "/bench/9/at-a-glance"}, {"arrive", "/bench/9/arrive"}, {"look over", "/bench/9/look-over"},
	{"open up", "/bench/9/open-up"}, {"take stock", "/bench/9/take-stock"}, {"identify", "/bench/9/identify"},
	{"judge", "/bench/9/judge"}, {"stores", "/stores"}, {"places", "/stores/places"}, {"diary", "/diary"},
	{"open first", "/diary/open-first"}, {"ageing", "/diary/ageing"}, {"library", "/library"},
	{"models", "/library/models"}, {"one model", "/library/models/1"}, {"known assemblies", "/library/known"},
	{"one card", "/library/known/1"}, {"signs", "/library/signs"}, {"procedures", "/library/procedures"},
	{"ROMs", "/library/roms"}, {"unknowns", "/library/unknowns"}, {"people", "/library/people"},
	{"makers", "/library/makers"}, {"packs", "/library/packs"}, {"account", "/account"},
}

// watch counts what moves without anybody having asked for it, and when the largest piece came.
const watch = `window.measured = { cls: 0, lcp: 0, moved: [] };
new PerformanceObserver(list => { for (const e of list.getEntries()) if (!e.hadRecentInput) {
	measured.cls += e.value;
	for (const s of e.sources) { const n = s.node; if (n && n.nodeName) measured.moved.push(e.value.toFixed(3) + " " +
		Math.round(s.previousRect.y) + ">" + Math.round(s.currentRect.y) + " " + n.nodeName + " " +
		(n.textContent || "").slice(0, 40)) } } })
	.observe({ type: "layout-shift", buffered: true });
new PerformanceObserver(list => { for (const e of list.getEntries()) measured.lcp = e.startTime })
	.observe({ type: "largest-contentful-paint", buffered: true });`

const read = `JSON.stringify({ cls: measured.cls, lcp: measured.lcp, moved: measured.moved,
	script: performance.getEntriesByType("resource").filter(e => e.name.endsWith(".js"))
		.reduce((sum, e) => sum + e.encodedBodySize, 0),
	nodes: document.querySelectorAll("*").length })`

type measured struct {
	CLS    float64  `json:"cls"`
	LCP    float64  `json:"lcp"`
	Script int      `json:"script"`
	Nodes  int      `json:"nodes"`
	Moved  []string `json:"moved"`
}

// limits that a view has to keep.
const mostShift = 0.1

func main() {
	url := flag.String("url", "", "address of a running application with the sample world; empty to start one")
	only := flag.String("only", "", "names of views, with commas between them; empty for all; keys for the sheet")
	moved := flag.Bool("moved", false, "say what moved")
	flag.Parse()
	if err := run(*url, *only, *moved); err != nil {
		fmt.Fprintln(os.Stderr, "measure:", err)
		os.Exit(1)
	}
}

func run(url, only string, moved bool) error {
	if url == "" {
		started, stop, err := sampleworld.Start()
		if err != nil {
			return err
		}
		defer stop()
		url = started
	}
	isAsked := func(name string) bool { return only == "" || strings.Contains(","+only+",", ","+name+",") }
	over := []string{}
	fmt.Println("| view | wide: shift | largest piece ms | nodes | phone: shift | largest piece ms | script kB |")
	fmt.Println("|---|--:|--:|--:|--:|--:|--:|")
	wide, err := signedIn(url, 1280, 800)
	if err != nil {
		return err
	}
	defer wide.Close()
	phone, err := signedIn(url, 390, 844)
	if err != nil {
		return err
	}
	defer phone.Close()
	for _, v := range views {
		if !isAsked(v.name) {
			continue
		}
		w, err := load(wide, url+v.path)
		if err != nil {
			return fmt.Errorf("%s: %w", v.name, err)
		}
		p, err := load(phone, url+v.path)
		if err != nil {
			return fmt.Errorf("%s: %w", v.name, err)
		}
		fmt.Printf("| %s | %.3f | %.0f | %d | %.3f | %.0f | %d |\n", v.name, w.CLS, w.LCP, w.Nodes, p.CLS, p.LCP,
			(w.Script+999)/1000)
		if w.CLS > mostShift || p.CLS > mostShift {
			over = append(over, v.name)
		}
		if moved {
			for _, line := range append(w.Moved, p.Moved...) {
				fmt.Println("    ", line)
			}
		}
	}
	if isAsked("keys") {
		if err := keys(wide, url); err != nil {
			return err
		}
	}
	if len(over) > 0 {
		return fmt.Errorf("these views jump by more than %.1f while they load: %s", mostShift, strings.Join(over, ", "))
	}
	return nil
}

func signedIn(url string, width, height int) (*browser.Browser, error) {
	b, err := browser.Start(width, height)
	if err != nil {
		return nil, err
	}
	curator := demo.Accounts[0]
	err = b.Do(chromedp.ActionFunc(func(ctx context.Context) error {
		_, err := page.AddScriptToEvaluateOnNewDocument(watch).Do(ctx)
		return err
	}), browser.SignIn(url, curator.Login, curator.Password))
	return b, err
}

// settle is how long a view may go on to draw.
const settle = 1500 * time.Millisecond

func load(b *browser.Browser, address string) (m measured, err error) {
	var text string
	err = b.Do(chromedp.Navigate("about:blank"), chromedp.Navigate(address), browser.See(`//h1 | //h2`),
		chromedp.Sleep(settle), browser.Evaluate(read, &text))
	if err == nil {
		err = json.Unmarshal([]byte(text), &m)
	}
	return m, err
}

// keys types into sheets of three lengths, and says what a key costs.
func keys(b *browser.Browser, url string) error {
	fmt.Println("\n| lines | key to paint p50 ms | p95 ms | main thread a key ms | answers at a pause kB |")
	fmt.Println("|--:|--:|--:|--:|--:|")
	if err := b.Do(chromedp.Navigate(url)); err != nil {
		return err
	}
	for _, lines := range []int{60, 300, 2000} {
		id, err := machineWith(b, lines)
		if err != nil {
			return err
		}
		if err := typeInto(b, fmt.Sprintf("%s/bench/%d/take-stock", url, id), lines); err != nil {
			return fmt.Errorf("%d lines: %w", lines, err)
		}
	}
	return nil
}

// machineWith makes a machine with one board of so many lines.
func machineWith(b *browser.Browser, lines int) (id int, err error) {
	script := fmt.Sprintf(`(async () => {
		const post = async (path, body) => (await fetch(path, { method: "POST", body: JSON.stringify(body),
			headers: { "Content-Type": "application/json", "Idempotency-Key": "measure-" + Math.random() } })).json()
		const m = await post("/api/machines", { accession: "EH-M" + Date.now(), name: "Measured" })
		const kinds = ["27128-25 8533", "41256-15 8601", "74LS245 8512", "74LS00 8447", "4164-15 8410"]
		const sheet = Array.from({ length: %d }, (_, i) => "U" + (i + 1) + " " + kinds[i %% 5]).join("\n")
		const a = await post("/api/machines/" + m.id + "/assemblies",
			{ title: "Main board" })
		const kept = await fetch("/api/assemblies/" + a.id + "/sheet", { method: "PUT", 
			body: JSON.stringify({ body: sheet, base: 0 }), headers: { "Content-Type": "application/json" } })
		return kept.ok ? m.id : -1
	})()`, lines)
	err = b.Do(chromedp.Evaluate(script, &id, browser.Awaited))
	if err == nil && id < 0 {
		err = errors.New("no machine was made")
	}
	return id, err
}

const watchKeys = `window.keys = []; window.answers = [];
addEventListener("keydown", e => { const t = e.timeStamp; requestAnimationFrame(() => { const c = new MessageChannel();
	c.port1.onmessage = () => keys.push(performance.now() - t); c.port2.postMessage(0) }) }, true);
new PerformanceObserver(list => { for (const e of list.getEntries()) if (e.name.includes("/api/"))
	answers.push([e.name.replace(/.*\/api/, ""), e.decodedBodySize]) }).observe({ type: "resource" });`

const typed = 40

func typeInto(b *browser.Browser, address string, lines int) error {
	var took []float64
	var answers [][]any
	var before, after float64
	if err := b.Do(chromedp.Navigate(address), browser.See(`//*[contains(@class, "cm-line")]`),
		chromedp.Sleep(2*settle), browser.Click(`(//*[contains(@class, "cm-line")])[3]`), browser.Keys("\r"),
		chromedp.Sleep(settle), chromedp.Evaluate(watchKeys, nil), taskSeconds(&before)); err != nil {
		return err
	}
	for i := range typed {
		if err := b.Do(browser.Keys(string("U900 27128-25 8533 "[i%19])), chromedp.Sleep(120*time.Millisecond)); err != nil {
			return err
		}
	}
	if err := b.Do(taskSeconds(&after), chromedp.Sleep(settle), chromedp.Evaluate("keys", &took),
		chromedp.Evaluate("answers", &answers)); err != nil {
		return err
	}
	sort.Float64s(took)
	largest := 0.0
	for _, a := range answers {
		largest = max(largest, a[1].(float64))
	}
	fmt.Printf("| %d | %.0f | %.0f | %.0f | %.1f |\n", lines, took[len(took)/2], took[len(took)*95/100],
		(after-before)*1000/typed, largest/1000)
	return nil
}

// taskSeconds reads how long the page's main thread has worked.
func taskSeconds(into *float64) chromedp.Action {
	return chromedp.ActionFunc(func(ctx context.Context) error {
		if err := performance.Enable().Do(ctx); err != nil {
			return err
		}
		all, err := performance.GetMetrics().Do(ctx)
		for _, m := range all {
			if m.Name == "TaskDuration" {
				*into = m.Value
			}
		}
		return err
	})
}
